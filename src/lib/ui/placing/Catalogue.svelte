<!-- A catalogue: what the reader may see, filtered and in an order; where it is set so, a document is read beside the list. Works without script. -->
<script lang="ts">
	import { counted } from '#core/access/reach';
	import { catalogueOrders, catalogueStep as step } from '#core/placing/content';
	import type { ListedDocument, SeenCatalogue } from '$lib/server/placing/catalogue';
	import Cover from './Cover.svelte';
	let { title, seen, reading, query }: { title: string; seen: SeenCatalogue; reading: string | null; query: string } = $props();

	const asked = $derived(new URLSearchParams(query));
	const orderWords: Record<string, string> = {
		title: 'By title',
		'-changed': 'Newest first',
		folder: 'By folder',
		'-pages': 'Longest first',
		given: 'As arranged',
		match: 'Best match'
	};
	const orders = $derived([...(asked.get('q') ? ['match'] : []), ...catalogueOrders]);
	function address(change: Record<string, string | null>): string {
		const params = new URLSearchParams(query);
		for (const [name, value] of Object.entries(change))
			if (value === null) params.delete(name);
			else params.set(name, value);
		return `?${params}`;
	}
	const href = (document: ListedDocument) => (seen.beside ? address({ read: document.slug }) : `/d/${document.slug}`);
	const read = $derived(reading ? seen.items.find((d) => d.slug === reading) : undefined);
</script>

<h1>{title}</h1>
{#if seen.lead}<p class="lead">{seen.lead}</p>{/if}
{#if seen.filters}
	<form class="ask" role="search">
		<input
			class="field"
			type="search"
			name="q"
			value={asked.get('q') ?? ''}
			placeholder="Find in titles and in the words inside"
			aria-label="Find in this catalogue"
		/>
		{#each [{ name: 'folder', words: 'Folder', values: seen.folders }, { name: 'topic', words: 'Topic', values: seen.topics }] as filter (filter.name)}
			{#if filter.values.length > 1 || asked.get(filter.name)}
				<label
					>{filter.words}
					<select class="field" name={filter.name} data-asks>
						<option value="">All</option>
						{#each filter.values as { value, count } (value)}<option {value} selected={asked.get(filter.name) === value}>{value} ({count})</option>{/each}
					</select></label
				>
			{/if}
		{/each}
		<label
			>Order <select class="field" name="order" data-asks>
				{#each orders as order (order)}<option value={order} selected={seen.order === order}>{orderWords[order]}</option>{/each}
			</select></label
		>
		<button class="btn">Show</button>
	</form>
{/if}
<p class="soft" role="status">
	{seen.total ? counted(seen.total, 'document', 'documents') : 'Nothing here fits that.'}
	{#if asked.get('q') || asked.get('folder') || asked.get('topic')}<a href="?">Show all</a>{/if}
</p>
<div class="both" class:reading={read}>
	<div>
		{#if seen.show === 'table'}
			<table>
				<thead><tr><th scope="col">Document</th><th scope="col">Folder</th><th scope="col">Pages</th><th scope="col">Changed</th></tr></thead>
				<tbody>
					{#each seen.items as document (document.slug)}
						<tr aria-current={document.slug === reading || undefined}>
							<td><a href={href(document)} data-sveltekit-noscroll>{document.title}</a></td><td>{document.folder}</td><td class="n">{document.pages}</td><td
								>{document.date}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{:else}
			<ul class={seen.show}>
				{#each seen.items as document (document.slug)}
					<li>
						<a href={href(document)} aria-current={document.slug === reading || undefined} data-sveltekit-noscroll>
							{#if seen.show === 'covers'}<Cover cover={document.cover} width={170} alt="" />{/if}
							<strong>{document.title}</strong>
						</a>
						{#if seen.show === 'list' && document.description}<p>{document.description}</p>{/if}
						<p class="soft">
							{document.facts}, {document.date}{#if document.hitPages.length}; found on {document.hitPages.length === 1 ? 'page' : 'pages'}
								{#each document.hitPages as n, i (n)}{i ? ', ' : ''}<a href="/d/{document.slug}/read#page={n}&search={encodeURIComponent(asked.get('q') ?? '')}"
										>{n}</a
									>{/each}{/if}
						</p>
					</li>
				{/each}
			</ul>
		{/if}
		{#if seen.total > step}
			<p class="turn">
				{#if seen.offset > 0}<a class="btn" href={address({ from: String(Math.max(0, seen.offset - step)) })}>Before</a>{/if}
				<span class="soft">{seen.offset + 1} to {Math.min(seen.total, seen.offset + step)} of {seen.total}</span>
				{#if seen.offset + step < seen.total}<a class="btn" href={address({ from: String(seen.offset + step) })}>Further</a>{/if}
			</p>
		{/if}
	</div>
	{#if read}
		<section class="beside" aria-label="Reading {read.title}">
			<header>
				<strong>{read.title}</strong><a href="/d/{read.slug}">About it</a><a href={address({ read: null })} data-sveltekit-noscroll>Close</a>
			</header>
			{#key read.slug}<iframe src="/d/{read.slug}/read?frame=1&edge=1" title={read.title}></iframe>{/key}
		</section>
	{/if}
</div>

<style>
	h1 {
		font-size: clamp(26px, 5vw, 36px);
	}
	.lead {
		margin-top: 8px;
		max-width: 720px;
		font-size: 1.06em;
	}
	.ask {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 12px;
		align-items: end;
		margin: 18px 0 8px;
	}
	.ask input {
		flex: 1 1 220px;
	}
	.ask label {
		display: flex;
		align-items: center;
		gap: 6px;
		font-size: 14px;
		color: var(--ink-soft);
	}
	.ask select {
		max-width: 200px;
		padding: 0 28px 0 8px;
		height: 38px;
		font-size: 15px;
	}
	.both.reading {
		display: grid;
		grid-template-columns: minmax(220px, 320px) minmax(0, 1fr);
		gap: 24px;
	}
	ul {
		list-style: none;
		padding: 0;
		margin-top: 10px;
	}
	ul.list li {
		padding: 11px 0;
		border-top: 1px solid var(--line);
	}
	ul.covers {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
		gap: 22px;
	}
	.reading ul.covers {
		grid-template-columns: repeat(2, 1fr);
	}
	ul.covers :global(img) {
		width: 100%;
		height: auto;
		border: 1px solid var(--line);
		background: #fff;
		margin-bottom: 6px;
	}
	li a {
		text-decoration: none;
	}
	li strong {
		font: 600 17px/1.3 var(--title);
	}
	li a:hover strong {
		text-decoration: underline;
	}
	[aria-current] strong,
	tr[aria-current] a {
		border-bottom: 2px solid var(--brass-bright);
	}
	.soft {
		font-size: 14px;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		margin-top: 10px;
	}
	th,
	td {
		text-align: left;
		padding: 8px 14px 8px 0;
		border-bottom: 1px solid var(--line);
		vertical-align: top;
	}
	th {
		font-size: 13px;
		color: var(--ink-soft);
		font-weight: 500;
	}
	td.n {
		font-variant-numeric: tabular-nums;
	}
	.turn {
		display: flex;
		gap: 14px;
		align-items: center;
		margin-top: 18px;
	}
	.beside {
		position: sticky;
		top: 12px;
		height: calc(100dvh - 24px);
		display: flex;
		flex-direction: column;
		border: 1px solid var(--line);
		background: var(--ground);
	}
	.beside header {
		display: flex;
		gap: 14px;
		align-items: baseline;
		padding: 8px 12px;
		border-bottom: 1px solid var(--line);
	}
	.beside header strong {
		flex: 1;
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		font-family: var(--title);
	}
	.beside iframe {
		flex: 1;
		border: 0;
		width: 100%;
	}
	@media (max-width: 760px) {
		.both.reading {
			display: block;
		}
		.beside {
			position: fixed;
			inset: 0;
			height: 100dvh;
			z-index: 30;
			border: 0;
		}
		table th:nth-child(2),
		table td:nth-child(2) {
			display: none;
		}
	}
</style>
