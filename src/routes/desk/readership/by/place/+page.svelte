<!-- Where placed: of each placement how often it was shown, pressed, opened and saved; other websites. -->
<script lang="ts">
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
	import { formWords, type Form } from '#core/placing/placement';
	import Hall from '$lib/ui/readership/Hall.svelte';
	import TakeAway from '$lib/ui/readership/TakeAway.svelte';
	let { data } = $props();
	const here = $derived(data.report.items.filter((p) => p.kind === 'placement'));
	const outside = $derived(data.report.items.filter((p) => p.kind === 'outside'));
	const pages = $derived(
		[...new Map(here.map((p) => [p.where, p.title]))].map(([where, title]) => ({ where, title, lines: here.filter((p) => p.where === where) }))
	);
	const best = $derived(here.filter((p) => p.shown >= 20).toSorted((a, b) => b.pressed / b.shown - a.pressed / a.shown)[0]);
	const answer = $derived([
		{ text: counted(pages.length, 'page', 'pages'), tone: 'strong' as const },
		{ text: ' led to documents' },
		...(outside.length ? [{ text: `, and ${counted(new Set(outside.map((o) => o.where)).size, 'other website', 'other websites')}` }] : []),
		{ text: '. ' },
		...(best
			? [{ text: `Most often pressed when shown: “${best.document}” on ${best.title}, ` }, { text: percent(best), tone: 'strong' as const }, { text: '.' }]
			: [])
	]);
	function percent(p: { shown: number; pressed: number }) {
		return p.shown ? `${Math.min(100, Math.round((100 * p.pressed) / p.shown))} %` : '';
	}
	const form = (f: string | null) => (f === 'entry' ? 'Entry' : f === 'list' ? 'In a list' : f && f in formWords ? formWords[f as Form] : '');
</script>

<svelte:head><title>Where placed, readership, {data.site.name}</title></svelte:head>
<Hall title="Where placed" note="from being shown to being saved" period={data.report.period} whole={data.report.whole} {answer}>
	{#if data.report.items.length}
		<section>
			<h2>On pages <span class="tools"><TakeAway report="places" table="places" /></span></h2>
			<Table class="rows">
				<TableHead
					><TableHeadCell>Page and document</TableHeadCell><TableHeadCell>Form</TableHeadCell><TableHeadCell>Shown</TableHeadCell><TableHeadCell
						>Pressed</TableHeadCell
					><TableHeadCell></TableHeadCell><TableHeadCell>Opened</TableHeadCell><TableHeadCell>Saved</TableHeadCell></TableHead
				>
				{#each pages as p (p.where)}
					<TableBody>
						<TableBodyRow class="page"
							><TableHeadCell colspan={7} scope="rowgroup"><a href={p.where}>{p.title}</a> <span class="soft">{p.where}</span></TableHeadCell></TableBodyRow
						>
						{#each p.lines as line, i (i)}<TableBodyRow
								><TableBodyCell><a class="title" href="/desk/readership/{line.slug}">{line.document}</a></TableBodyCell><TableBodyCell
									>{form(line.form)}</TableBodyCell
								><TableBodyCell>{line.shown || ''}</TableBodyCell><TableBodyCell>{line.pressed}</TableBodyCell><TableBodyCell class="soft"
									>{percent(line)}</TableBodyCell
								><TableBodyCell>{line.openings}</TableBodyCell><TableBodyCell>{line.saves || ''}</TableBodyCell></TableBodyRow
							>{/each}
					</TableBody>
				{/each}
			</Table>
			<p class="soft note">Shown: came into a reader's view. Pressed: led to its page, an opening or a save.</p>
		</section>
		{#if outside.length}
			<section>
				<h2>On other websites</h2>
				<Table class="rows">
					<TableHead
						><TableHeadCell>Website</TableHeadCell><TableHeadCell>Document</TableHeadCell><TableHeadCell>Opened</TableHeadCell><TableHeadCell
							>Saved</TableHeadCell
						></TableHead
					>
					<TableBody
						>{#each outside as line, i (i)}<TableBodyRow
								><TableBodyCell>{line.where}</TableBodyCell><TableBodyCell
									><a class="title" href="/desk/readership/{line.slug}">{line.document}</a></TableBodyCell
								><TableBodyCell>{line.openings}</TableBodyCell><TableBodyCell>{line.saves || ''}</TableBodyCell></TableBodyRow
							>{/each}</TableBody
					>
				</Table>
			</section>
		{/if}
	{:else}<p class="soft py-6">No page led to a document in this time.</p>{/if}
</Hall>

<style>
	section {
		margin-top: 18px;
	}
	section :global(.page th) {
		font: 600 14px var(--body);
		color: var(--ink);
		padding: 8px 12px;
	}
	section :global(td:nth-child(n + 3)),
	section :global(th:nth-child(n + 3)) {
		text-align: right;
	}
	.note {
		font-size: 13px;
		margin-top: 6px;
	}
</style>
