<!-- Two editions side by side: what was added and removed, page by page. -->
<script lang="ts">
	import { Button, Select } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { goto } from '$app/navigation';
	import { counted } from '#core/text/list';
	import { sizeWords } from '#core/documents/size';
	import type { ComparedPage } from '#core/documents/compare';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import PagesBeside from '$lib/ui/documents/PagesBeside.svelte';
	import { dayText } from '$lib/ui/parts/when';

	let { data } = $props();
	const { before, after, pages, added, removed, whole } = $derived(data.compared);
	const changed = $derived(pages.filter((p) => p.kind !== 'same'));
	/** Pages without a change, told in runs. */
	const runs = $derived(
		pages.reduce<(ComparedPage | { same: ComparedPage[] })[]>((all, page) => {
			const last = all[all.length - 1];
			if (page.kind !== 'same') all.push(page);
			else if (last && 'same' in last) last.same.push(page);
			else all.push({ same: [page] });
			return all;
		}, [])
	);
	const headOf = (page: ComparedPage) =>
		page.kind === 'added'
			? `Page ${page.after} is new`
			: page.kind === 'removed'
				? `Page ${page.before} is gone`
				: page.before === page.after
					? `Page ${page.after}`
					: `Page ${page.before}, now page ${page.after}`;
	/** Which runs are open as pictures: of others none is fetched. */
	let shown = $state<Record<number, boolean>>({});
	function show(run: number, open: boolean) {
		shown[run] ||= open;
	}
	let busy = $state(false);
	/** Takes the file that the source offers, or leaves it alone, and goes back to the document. */
	async function answer(what: 'take' | 'leave', said: string) {
		busy = true;
		const done = await act(`“${data.title}”: ${said}`, () => call('post /documents/{slug}/source', { path: { slug: data.slug }, body: { do: what } }));
		busy = false;
		if (done) await goto(`/desk/documents/${data.slug}`);
	}
	const choose = (which: 'before' | 'after', number: string) =>
		goto(`?${new URLSearchParams({ before: String(before.number), after: String(after.number), [which]: number })}`, { keepFocus: true });
</script>

<svelte:head><title>What changed: {data.title}</title></svelte:head>

<div class="compare">
	<p><a href="/desk/documents/{data.slug}">Back to {data.title}</a></p>
	<h1>What changed</h1>
	<div class="say">
		From edition
		{#each [['before', before.number], ['after', after.number]] as const as [which, number] (which)}
			{which === 'after' ? ' to ' : ''}<Select aria-label="Edition {which}" value={String(number)} onchange={(e) => choose(which, e.currentTarget.value)}
				>{#each data.editions as n (n)}<option value={String(n)}>{n}</option>{/each}</Select
			>
		{/each}:
		{#if !changed.length}the words of every page are the same{:else}{counted(added, 'word', 'words')} added, {counted(removed, 'word', 'words')} removed, on {counted(
				changed.length,
				'page',
				'pages'
			)}{/if}.
	</div>
	{#if data.offered}
		<p class="offered">
			Edition {after.number} is the file that stands at the document’s web address now. Nobody reads it here yet.
			<Button kind="main" disabled={busy} onclick={() => answer('take', 'taken as the new edition.')}>Take as new edition</Button>
			<Button disabled={busy} onclick={() => answer('leave', 'left as it is; the next change is offered again.')}>Leave it</Button>
		</p>
	{/if}
	<Table class="rows facts">
		<TableHead
			><TableHeadCell></TableHeadCell><TableHeadCell>Edition {before.number}</TableHeadCell><TableHeadCell>Edition {after.number}</TableHeadCell></TableHead
		>
		<TableBody>
			<TableBodyRow
				><TableBodyCell>Put in</TableBodyCell><TableBodyCell>{dayText(before.at, data.site.zone)}</TableBodyCell><TableBodyCell
					>{dayText(after.at, data.site.zone)}</TableBodyCell
				></TableBodyRow
			>
			<TableBodyRow><TableBodyCell>Pages</TableBodyCell><TableBodyCell>{before.pages}</TableBodyCell><TableBodyCell>{after.pages}</TableBodyCell></TableBodyRow>
			<TableBodyRow
				><TableBodyCell>Size</TableBodyCell><TableBodyCell>{sizeWords(before.bytes)}</TableBodyCell><TableBodyCell>{sizeWords(after.bytes)}</TableBodyCell
				></TableBodyRow
			>
			<TableBodyRow
				><TableBodyCell>File</TableBodyCell><TableBodyCell>{before.fileName}</TableBodyCell><TableBodyCell>{after.fileName}</TableBodyCell></TableBodyRow
			>
		</TableBody>
	</Table>
	{#if !whole}<p class="trouble">Some pages differ too much to compare word by word; they are shown whole.</p>{/if}
	{#key `${before.number} ${after.number}`}
		{#each runs as run, i (i)}
			{#if 'same' in run}
				<details class="same" ontoggle={(e) => show(i, e.currentTarget.open)}>
					<summary
						>{run.same.length === 1 ? `Page ${run.same[0]!.after}` : `Pages ${run.same[0]!.after} to ${run.same[run.same.length - 1]!.after}`}: the same words</summary
					>
					{#if shown[i]}<PagesBeside slug={data.slug} pages={run.same} before={before.number} after={after.number} />{/if}
				</details>
			{:else}
				<section class={run.kind}>
					<h2>{headOf(run)}</h2>
					<p class="text">
						{#each run.parts as part, j (j)}{#if part.kind === 'added'}<ins>{part.text}</ins>{:else if part.kind === 'removed'}<del>{part.text}</del
								>{:else}{part.text}{/if}{/each}{#if !run.parts.some((p) => p.text.trim())}<span class="soft">No words on it.</span>{/if}
					</p>
					<details ontoggle={(e) => show(i, e.currentTarget.open)}>
						<summary>As pictures</summary>
						{#if shown[i]}<PagesBeside slug={data.slug} pages={[run]} before={before.number} after={after.number} />{/if}
					</details>
				</section>
			{/if}
		{/each}
	{/key}
</div>

<style>
	.compare {
		max-width: 900px;
		margin: 0 auto;
		padding: 20px 18px 60px;
	}
	.say {
		margin: 10px 0;
		font-size: 16px;
	}
	.say :global(.field) {
		height: 30px;
		padding: 0 28px 0 8px;
		display: inline-block;
	}
	.offered {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 12px;
		align-items: center;
		padding: 8px 12px;
		margin-bottom: 14px;
		border: 1px solid var(--brass-bright);
		background: var(--brass-wash);
	}
	.facts {
		margin-bottom: 18px;
	}
	section {
		background: var(--sheet);
		border: 1px solid var(--line);
		border-left: 4px solid var(--brass-bright);
		padding: 10px 16px;
		margin-bottom: 10px;
	}
	section.added {
		border-left-color: var(--verdigris);
	}
	section.removed {
		border-left-color: var(--brick);
	}
	h2 {
		font-size: 16px;
	}
	.text {
		white-space: pre-wrap;
		overflow-wrap: anywhere;
		line-height: 1.6;
	}
	summary {
		cursor: pointer;
	}
	.same {
		color: var(--ink-soft);
		padding: 2px 0 12px 20px;
	}
	ins {
		background: var(--verdigris-wash);
		color: var(--verdigris);
		text-decoration: underline;
		font-weight: 600;
	}
	del {
		background: var(--brick-wash);
		color: var(--brick);
	}
</style>
