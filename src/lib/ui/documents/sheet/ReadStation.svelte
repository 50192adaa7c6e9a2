<!-- Read: how it is read, and who did in the last 30 days. -->
<script lang="ts">
	import { counted, listWords } from '#core/text/list';
	import { roomSettings, type ReadingSettings } from '#core/reading/settings';
	import type { DocumentView } from '$lib/server/documents/view';
	import type { LedgerItem } from '$lib/server/readership/ledger';
	import type { Summary } from '$lib/server/readership/reports/document';
	import { timeText } from '$lib/ui/parts/when';
	import ReadingFields from '$lib/ui/reading/ReadingFields.svelte';
	import { notWholeWords } from '$lib/ui/readership/words';
	import Station from './Station.svelte';

	let {
		view,
		zone,
		report,
		savers,
		recent,
		siteReading,
		set
	}: {
		view: DocumentView;
		zone: string;
		report: Summary;
		/** Who saved it in these days, by name. */
		savers: readonly { readonly name: string; readonly saves: number }[];
		/** The newest entries of the ledger. */
		recent: readonly LedgerItem[];
		/** How documents are read on this site. */
		siteReading: ReadingSettings | null;
		set: (reading: ReadingSettings | null) => void;
	} = $props();

	const peak = $derived(Math.max(1, ...report.bars.map((d) => d.openings)));
	const answer = $derived(report.answer.map((p) => p.text).join(''));
	/** 'Saved 8 times: Wren Lockyer 3, Ash Fenner 2, and 3 by visitors.' */
	const savedWords = $derived.by(() => {
		const { saves } = report.figures;
		if (!saves) return 'Not saved by anybody.';
		const shown = savers.slice(0, 12);
		const others = savers.length - shown.length;
		const nameless = saves - savers.reduce((sum, saver) => sum + saver.saves, 0);
		const who = [
			...shown.map(({ name, saves: times }) => (times > 1 ? `${name} ${times}` : name)),
			...(others > 0 ? [counted(others, 'other', 'others')] : []),
			...(nameless > 0 ? [shown.length ? `${nameless} by visitors` : 'by visitors'] : [])
		];
		return `Saved ${saves === 1 ? 'once' : `${saves} times`}: ${listWords(who)}.`;
	});
	const kindWords: Record<string, string> = {
		opened: 'opened it',
		saved: 'saved it',
		'turned-away': 'was turned away',
		'key-used': 'used their key',
		printed: 'printed it',
		knocked: 'knocked'
	};
	const fromWords = ({ source }: LedgerItem) => (source.title ? `, from ${source.title}` : source.site ? `, from ${source.site}` : '');
</script>

<Station id="read" name="Read" about="in 30 days" state={view.passage.read}>
	{#snippet link()}<a href="/desk/readership/{view.slug}">Readership</a>{/snippet}
	<details class="how">
		<summary>How it is read{view.reading ? ', set here' : ''}</summary>
		<ReadingFields own={view.reading ?? {}} usual={roomSettings('window', [siteReading])} usualWords="as the site" {set} />
	</details>
	<svg class="bars" viewBox="0 0 370 54" role="img" aria-label="Openings a day over 30 days" preserveAspectRatio="none">
		{#each report.bars as d, i (d.day)}<rect
				x={i * 12.3}
				y={53 - (d.openings / peak) * 50}
				width="9.4"
				height={(d.openings / peak) * 50}
				fill="var(--verdigris)"><title>{d.day}: {d.openings}</title></rect
			>{/each}
		<path d="M0 53.5h370" stroke="var(--line)" />
	</svg>
	<p>{answer}</p>
	<p data-testid="savers">{savedWords}</p>
	{#if !report.whole}<p class="soft" role="status">{notWholeWords}</p>{/if}
	{#if report.staff.openings || report.staff.saves}<p class="soft">
			Staff, apart: {counted(report.staff.openings, 'opening', 'openings')}{report.staff.saves ? `, ${counted(report.staff.saves, 'copy', 'copies')}` : ''}.
		</p>{/if}
	{#if recent.length}
		<ul class="recent">
			{#each recent as item, i (i)}
				<li>
					<span class="truncate">{item.who.name ?? 'A visitor'} {kindWords[item.kind]}{fromWords(item)}</span><time class="soft" datetime={item.at}
						>{timeText(item.at, zone)}</time
					>
				</li>
			{/each}
		</ul>
	{/if}
</Station>

<style>
	.how {
		margin: 8px 0;
	}
	.how summary {
		cursor: pointer;
		min-height: 28px;
		align-content: center;
	}
	.bars {
		width: 100%;
		height: 54px;
		background: none;
		margin-top: 4px;
	}
	.recent {
		font-size: 13px;
	}
	.recent li {
		display: flex;
		gap: 10px;
		justify-content: space-between;
		padding: 2px 0;
	}
	.recent time {
		white-space: nowrap;
	}
</style>
