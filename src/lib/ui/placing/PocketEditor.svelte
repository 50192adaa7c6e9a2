<!-- Making a pocket page: its entries as lines of a timetable, each with the days on which it is on show; what somebody sees who comes on a
     chosen day; and the QR code that leads here. -->
<script lang="ts">
	import { Button, Input, Range } from '$lib/ui/parts/controls';
	import { onMount, untrack } from 'svelte';
	import { dragHandle, dragHandleZone, type DndEvent } from 'svelte-dnd-action';
	import { dayOf } from '#core/access/hours';
	import { entryTrouble, onShow, phoneScreens, type Pocket, type PocketEntry } from '#core/placing/pocket';
	import { spanOf } from '#core/access/hours';
	import type { AtHand } from '$lib/server/placing/contract';
	import FindDocument from './FindDocument.svelte';
	import PocketFields from './PocketFields.svelte';
	import { freshPlacement } from './article/nodes';
	import type { Writer } from './writer.svelte';
	let { writer, content, placed, zone, origin }: { writer: Writer; content: Pocket; placed: readonly AtHand[]; zone: string; origin: string } = $props();

	type Line = PocketEntry & { id: string };
	let lead = $state(untrack(() => content.lead ?? ''));
	// kept entries have ids
	let entries = $state<Line[]>(untrack(() => content.entries.map((e) => ({ ...e, id: e.id! }))));
	const titles = $state(untrack(() => new Map(placed.map((d) => [d.slug, d]))));
	let url = $state('');
	let urlWords = $state('');
	let open = $state<string | null>(null);
	const dayMs = 86_400_000;
	const weeks = 10;
	const now = Date.now();
	/** Days from today at which one looks. */
	let ahead = $state(0);
	const lookAt = $derived(now + ahead * dayMs);
	const seen = $derived(entries.filter((e) => onShow(e, lookAt, zone)));
	const screens = $derived(phoneScreens(seen.length));

	onMount(() => {
		writer.content = () => ({ ...(lead.trim() ? { lead: lead.trim() } : {}), entries: $state.snapshot(entries).filter((e) => !entryTrouble(e)) });
		return writer.stop;
	});
	const touch = () => writer.touch();
	function change(id: string, given: Partial<Line>) {
		entries = entries.map((e) => {
			if (e.id !== id) return e;
			const next = { ...e, ...given } as Record<string, unknown>;
			for (const key of Object.keys(next)) if (next[key] === undefined || next[key] === '' || next[key] === false) delete next[key];
			// the fields of both kinds are given together
			return next as unknown as Line;
		});
		touch();
	}
	function add(entry: PocketEntry) {
		const id = freshPlacement();
		entries = [...entries, { ...entry, id }];
		open = id;
		touch();
	}
	function addLink(event: SubmitEvent) {
		event.preventDefault();
		const address = /^(https?:|mailto:|tel:|\/)/.test(url.trim()) ? url.trim() : `https://${url.trim()}`;
		add({ url: address, words: urlWords.trim() });
		url = urlWords = '';
	}
	function move(id: string, by: number) {
		const at = entries.findIndex((e) => e.id === id);
		const next = [...entries];
		next.splice(Math.max(0, Math.min(entries.length - 1, at + by)), 0, ...next.splice(at, 1));
		entries = next;
		touch();
	}
	/** The lines while one of them is in the hand: where it would stand. What is kept stays as it is until it is let go. */
	let held = $state.raw<Line[] | null>(null);
	const lines = $derived(held ?? entries);
	const consider = (event: CustomEvent<DndEvent<Line>>) => (held = event.detail.items);
	function letGo(event: CustomEvent<DndEvent<Line>>) {
		entries = event.detail.items;
		held = null;
		touch();
	}
	const named = (e: PocketEntry) => e.words?.trim() || (e.document ? (titles.get(e.document)?.title ?? e.document) : (e.url ?? ''));
	/** Where the bar of an entry begins and ends, as shares of the weeks shown. */
	function bar(e: PocketEntry): { left: number; width: number } | null {
		const span = spanOf(e.from ?? null, e.until ?? null, zone);
		const share = (at: number | null, otherwise: number) => (at === null ? otherwise : Math.min(1, Math.max(0, (at - now) / (weeks * 7 * dayMs))));
		const [left, right] = [share(span.from, 0), share(span.until, 1)];
		return right <= left ? null : { left: left * 100, width: (right - left) * 100 };
	}
	const dayWords = (at: number) => new Intl.DateTimeFormat('en-GB', { timeZone: zone, weekday: 'short', day: 'numeric', month: 'short' }).format(at);
	const stands = (e: PocketEntry) => {
		if (e.resting) return 'resting';
		const span = spanOf(e.from ?? null, e.until ?? null, zone);
		if (span.from !== null && span.from > now) return `from ${dayWords(span.from)}`;
		if (span.until !== null && span.until <= now) return `over since ${dayWords(span.until)}`;
		return span.until !== null ? `until ${dayWords(span.until - 1)}` : 'on show';
	};
	const address = $derived(`${origin}${writer.path}`);
	const months = Array.from({ length: weeks }, (_, i) => ({ at: (i / weeks) * 100, words: dayWords(now + i * 7 * dayMs).replace(/^\w+ /, '') }));
</script>

<div class="pocket">
	<section>
		<label class="lead">Words above <Input bind:value={lead} oninput={touch} maxlength={300} placeholder="What is found here, in a line" /></label>
		<div class="line head" aria-hidden="true">
			<span></span><span>Entry</span><span class="time"
				>{#each months as month (month.at)}<i style="left:{month.at}%">{month.words}</i>{/each}</span
			><span></span>
		</div>
		<ol
			use:dragHandleZone={{ items: lines, flipDurationMs: 120, dropTargetStyle: {}, zoneItemTabIndex: -1, autoAriaDisabled: false }}
			onconsider={consider}
			onfinalize={letGo}
			aria-label="Entries"
		>
			{#each lines as entry (entry.id)}
				{@const at = bar(entry)}
				<li class:unseen={!onShow(entry, lookAt, zone)}>
					<div class="line">
						<span
							use:dragHandle
							class="handle"
							aria-label="Move {named(entry)}"
							title="Draw it up or down; or Alt with the arrow keys"
							role="button"
							tabindex="0"
							onkeydown={(e) => {
								if (!e.altKey || (e.key !== 'ArrowUp' && e.key !== 'ArrowDown')) return;
								e.preventDefault();
								e.stopPropagation();
								move(entry.id, e.key === 'ArrowUp' ? -1 : 1);
							}}>≡</span
						>
						<Button kind="bare" class="name" aria-expanded={open === entry.id} onclick={() => (open = open === entry.id ? null : entry.id)}>
							{#if entry.document}<img src="/d/{entry.document}/cover/96.webp" alt="" />{:else}<i class="link" aria-hidden="true">↗</i>{/if}
							<span><strong>{named(entry)}</strong><small>{entry.url ?? `/d/${entry.document}`}</small></span>
						</Button>
						<span class="time">
							{#if at && !entry.resting}<i class="bar" style="left:{at.left}%;width:{at.width}%"></i>{/if}
							<i class="look" style="left:{(ahead / (weeks * 7)) * 100}%"></i>
							<small>{stands(entry)}</small>
						</span>
						<span class="do">
							<Button
								kind="pill"
								class={{ on: entry.resting }}
								aria-pressed={entry.resting ?? false}
								onclick={() => change(entry.id, { resting: !entry.resting })}>{entry.resting ? 'Resting' : 'Rest'}</Button
							>
						</span>
					</div>
					{#if open === entry.id}
						<PocketFields
							{entry}
							name={named(entry)}
							{zone}
							change={(given) => change(entry.id, given)}
							move={(by) => move(entry.id, by)}
							first={entries[0]?.id === entry.id}
							last={entries.at(-1)?.id === entry.id}
							takeOut={() => {
								entries = entries.filter((e) => e.id !== entry.id);
								touch();
							}}
						/>
					{/if}
				</li>
			{/each}
		</ol>
		{#if !entries.length}<p class="soft none">Nothing here yet. Add the first document or link below.</p>{/if}
		<div class="add">
			<FindDocument
				words="Add a document"
				choose={(at) => {
					titles.set(at.slug, at);
					add({ document: at.slug });
				}}
			/>
			<form onsubmit={addLink}>
				<Input bind:value={url} required placeholder="or a link: example.org/opening-hours" aria-label="Address of a link" />
				<Input bind:value={urlWords} required maxlength={120} placeholder="its words" aria-label="Words of the link" />
				<Button type="submit">Add the link</Button>
			</form>
		</div>
	</section>
	<section class="side">
		<h2>Whoever comes on</h2>
		<p><strong>{ahead === 0 ? 'this day' : dayWords(lookAt)}</strong> <span class="soft">{dayOf(lookAt, zone)}</span></p>
		<Range min="0" max={weeks * 7 - 1} bind:value={ahead} aria-label="Days from today" />
		<p>
			sees {seen.length} of {entries.length}, about <strong class="figure">{screens.toFixed(1)}</strong> phone screens.
		</p>
		{#if screens > 2}<p class="trouble" role="status">
				That is longer than two screens: whoever stands outside with a phone does not scroll further. Let some entries rest, or give them days of their own.
			</p>{/if}
		<ol class="sees">
			{#each seen as entry (entry.id)}<li>{named(entry)}</li>{:else}<li class="soft">Nothing.</li>{/each}
		</ol>
		<h2>Leads here</h2>
		<p><code>{address}</code></p>
		<img class="qr" src="/desk/pages/{writer.id}/qr.svg?v={encodeURIComponent(writer.path)}" alt="QR code of {address}" width="150" height="150" />
		<p class="flex gap-2 mt-2">
			<Button href="/desk/pages/{writer.id}/qr.svg?save" download data-sveltekit-reload>SVG</Button><Button
				href="/desk/pages/{writer.id}/qr.png?save"
				download
				data-sveltekit-reload>PNG</Button
			>
		</p>
		<p class="soft">With its quiet zone of four modules: leave the white edge on when it is printed.</p>
	</section>
</div>

<style>
	.pocket {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 280px;
		min-height: 0;
	}
	section {
		overflow-y: auto;
		padding: 16px 20px 40px;
	}
	.side {
		border-left: 1px solid var(--line);
		background: var(--sheet);
	}
	.side h2 {
		font-size: 17px;
	}
	.side h2:not(:first-child) {
		margin-top: 22px;
	}
	.side :global(input[type='range']) {
		width: 100%;
	}
	.figure {
		font: 600 20px var(--title);
	}
	.sees {
		list-style: decimal inside;
		margin-top: 8px;
	}
	.sees li {
		padding: 2px 0;
		border-top: 1px solid var(--line);
	}
	.qr {
		margin-top: 8px;
		background: #fff;
	}
	code {
		overflow-wrap: anywhere;
	}
	.lead {
		display: flex;
		gap: 10px;
		align-items: center;
		margin-bottom: 14px;
	}
	.lead :global(.field) {
		flex: 1;
	}
	.line {
		display: grid;
		grid-template-columns: 26px minmax(160px, 300px) minmax(0, 1fr) 84px;
		gap: 10px;
		align-items: center;
		min-height: 54px;
	}
	.line.head {
		min-height: 24px;
		font-size: 12px;
		color: var(--ink-soft);
	}
	li > .line {
		border-top: 1px solid var(--line);
		background: var(--sheet);
	}
	.unseen :global(.name strong) {
		color: var(--ink-soft);
		font-weight: 400;
	}
	.unseen :global(.name img) {
		opacity: 0.5;
	}
	.handle {
		cursor: grab;
		text-align: center;
		font-size: 18px;
		color: var(--ink-soft);
		padding: 8px 0;
	}
	.line :global(.name) {
		display: flex;
		gap: 10px;
		align-items: center;
		text-align: left;
		cursor: pointer;
		min-width: 0;
	}
	.line :global(.name img) {
		width: 30px;
		max-height: 42px;
		object-fit: cover;
		object-position: top;
		border: 1px solid var(--line);
	}
	.line :global(.name .link) {
		flex: 0 0 30px;
		text-align: center;
		font-style: normal;
	}
	.line :global(.name span) {
		min-width: 0;
	}
	.line :global(.name strong),
	.line :global(.name small) {
		display: block;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.line :global(.name strong) {
		font: 600 15px var(--title);
	}
	small {
		font-size: 12px;
		color: var(--ink-soft);
	}
	.time {
		position: relative;
		height: 30px;
		border-left: 1px solid var(--line);
		background: repeating-linear-gradient(90deg, transparent 0 calc(10% - 1px), var(--line) calc(10% - 1px) 10%);
	}
	.head .time {
		background: none;
		height: 18px;
		border: 0;
	}
	.head .time i {
		position: absolute;
		font-style: normal;
		white-space: nowrap;
	}
	.head .time i:nth-child(even) {
		display: none;
	}
	.time .bar {
		position: absolute;
		top: 3px;
		height: 9px;
		background: var(--verdigris);
		border-radius: 2px;
	}
	.time .look {
		position: absolute;
		top: -12px;
		bottom: -12px;
		border-left: 2px solid var(--brass-bright);
	}
	.time small {
		position: absolute;
		left: 6px;
		top: 13px;
		background: var(--sheet);
		padding: 0 4px;
	}
	.none {
		padding: 20px 0;
	}
	.add {
		display: grid;
		grid-template-columns: minmax(200px, 300px) 1fr;
		gap: 14px;
		padding-top: 14px;
		border-top: 1px solid var(--line);
	}
	.add form {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
	.add form :global(.field) {
		flex: 1 1 140px;
	}
	@media (max-width: 900px) {
		.pocket,
		.add {
			grid-template-columns: 1fr;
		}
		.line {
			grid-template-columns: 26px minmax(0, 1fr) 84px;
		}
		.line .time {
			display: none;
		}
	}
</style>
