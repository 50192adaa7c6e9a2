<!-- Puts documents at the end of pages, several at once: on the line of each page one says how it is to stand there. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { counted, listWords } from '#core/text/list';
	import { formWords, forms, type Form, type PlacementDefaults, type Press } from '#core/placing/placement';
	import { act, soughtFor } from '$lib/ui/parts/act';
	import { call, type Answer } from '$lib/ui/parts/api';
	import { Button, Input, Select } from '$lib/ui/parts/controls';
	import { refresh } from '$lib/ui/parts/refresh';

	let {
		documents,
		defaults = {},
		done
	}: {
		/** By their addresses. */
		documents: readonly { slug: string; title?: string }[];
		/** What the site says of each form. */
		defaults?: PlacementDefaults;
		done: () => void;
	} = $props();

	type Asked = NonNullable<Answer<'post /placements'>['asks']>;
	let pages = $state.raw<readonly { path: string; title: string; published: boolean }[] | null>(null);
	let q = $state('');
	/** How they are to stand on each page, by its path; 'save' for words that save. */
	let chosen = $state<Record<string, Form | 'save' | ''>>({});
	let asks = $state.raw<Asked>([]);
	let busy = $state(false);

	onMount(async () => {
		const found = (await soughtFor(call('get /pages'))) ?? [];
		pages = found.filter((p) => p.layout === 'article' && !p.setAsideAt).map(({ path, title, published }) => ({ path, title, published }));
	});
	const shown = $derived((pages ?? []).filter((p) => `${p.title} ${p.path}`.toLowerCase().includes(q.trim().toLowerCase()) || chosen[p.path]));
	const places = $derived(
		Object.entries(chosen).flatMap(([page, how]) => {
			if (!how) return [];
			const form: Form = how === 'save' ? 'text' : how;
			const press: Press = how === 'save' ? 'save' : (defaults[form]?.press ?? 'page');
			return [{ page, form, press }];
		})
	);
	const out = $derived((pages ?? []).some((p) => p.published && chosen[p.path]));
	const what = $derived(documents.length === 1 ? `“${documents[0]!.title ?? documents[0]!.slug}”` : counted(documents.length, 'document', 'documents'));

	async function put(ask: boolean) {
		busy = true;
		await act(
			({ places: put, asks }) => (asks ? '' : `${what} placed on ${counted(new Set(put.map((p) => p.page)).size, 'page', 'pages')}.`),
			() => call('post /placements', { body: { documents: documents.map((d) => d.slug), places, ask } }),
			({ before }) => call('patch /placements', { body: before }),
			{
				show: async ({ asks: asked }, undone) => {
					asks = asked ?? [];
					if (asked) return;
					await refresh();
					if (!undone) done();
				}
			}
		);
		busy = false;
	}
</script>

<form
	class="place"
	onsubmit={(e) => {
		e.preventDefault();
		if (places.length) void put(true);
	}}
>
	{#if pages && pages.length > 8}<Input type="search" aria-label="Find a page" placeholder="Part of a page’s title" bind:value={q} />{/if}
	<ul class="lines">
		{#each shown as p (p.path)}
			<li class:on={chosen[p.path]}>
				<span class="what">{p.title}<small>{p.path}{p.published ? '' : ', not published'}</small></span>
				<Select class="how" aria-label="On “{p.title}”" bind:value={() => chosen[p.path] ?? '', (how) => (chosen[p.path] = how)}>
					<option value="">not here</option>
					{#each forms as form (form)}
						<option value={form}>{formWords[form]}</option>
						{#if form === 'text'}<option value="save">Words that save</option>{/if}
					{/each}
				</Select>
			</li>
		{:else}<li class="soft">{pages ? (q.trim() ? 'No page is called that.' : 'There is no article to place it on yet.') : 'Looking …'}</li>{/each}
	</ul>
	{#if asks.length}
		<div class="trouble" role="alert">
			<p>Nothing is placed yet: some who see the page would be turned away.</p>
			<ul>
				{#each asks as asked (asked.page + asked.document)}<li>
						On “{asked.pageTitle}”{documents.length > 1 ? `, by ${asked.document}` : ''}: {asked.whom}
					</li>{/each}
			</ul>
			<p class="flex gap-2 mt-2"><Button disabled={busy} onclick={() => put(false)}>Place all the same</Button></p>
		</div>
	{/if}
	<p class="flex gap-2 items-center">
		<Button type="submit" kind="main" disabled={busy || !places.length}
			>{out ? 'Place and publish' : 'Place'}{places.length > 1 ? ` on ${places.length} pages` : ''}</Button
		>
		<span class="soft">{listWords(['at the end of the page', ...(out ? ['nothing else of its draft goes out'] : [])])}</span>
	</p>
</form>

<style>
	.place {
		display: grid;
		gap: 8px;
		margin-bottom: 10px;
	}
	.lines {
		max-height: 300px;
	}
	.place :global(.how) {
		height: 30px;
		font-size: 13px;
		width: auto;
		padding-right: 28px;
	}
</style>
