<!-- A list of documents as the page's reader may see it, filtered and in an order; where it is set so, a document is read beside the list. Works without
     script: what is asked stands in the page's address. An article may have several; `list` says which of them is asked. -->
<script lang="ts">
	import { page } from '$app/state';
	import { directionOf, writtenFrom, type Language } from '#core/words/words';
	import { listStepFor } from '#core/placing/listing';
	import type { ListedDocument, SeenList } from '$lib/server/placing/contract';
	import { words } from '$lib/ui/parts/words';
	import Cover from './Cover.svelte';
	import AnnouncedList from './AnnouncedList.svelte';
	import ListAsk from './ListAsk.svelte';
	import FoundLine from './FoundLine.svelte';
	import DocumentShelf from './DocumentShelf.svelte';
	let {
		seen,
		reading,
		query,
		list = null
	}: {
		seen: SeenList;
		/** The document read beside it. */ reading: string | null;
		query: string;
		/** Its id among the lists of an article. */ list?: string | null;
	} = $props();

	/** What a list is asked; the rest of the address stays as it is: a preview is for somebody. */
	const own = $derived(['list', 'q', 'folder', 'topic', ...seen.fields.map((field) => `f-${field.name}`), 'order', 'from', 'read']);
	/** What it can be narrowed by. */
	const filters = $derived([
		{ name: 'folder', said: words('folder'), values: seen.folders },
		{ name: 'topic', said: words('topic'), values: seen.topics },
		...seen.fields.map((field) => ({ name: `f-${field.name}`, said: field.words, values: field.values }))
	]);
	const given = $derived(new URLSearchParams(query));
	const isAsked = $derived(list === null || given.get('list') === list);
	const asked = $derived(isAsked ? given : new URLSearchParams());
	const others = $derived([...given].filter(([name]) => !own.includes(name)));
	const narrowed = $derived(['q', ...filters.map((filter) => filter.name)].some((name) => asked.get(name)));
	const step = $derived(listStepFor(asked.get('q')?.trim() ?? ''));
	const anchor = $derived(list === null ? '' : `#list-${list}`);
	function address(change: Record<string, string | null>): string {
		const params = new URLSearchParams([
			...others,
			...(list === null ? [] : [['list', list]]),
			...[...asked].filter(([name]) => own.includes(name) && name !== 'list')
		]);
		for (const [name, value] of Object.entries(change))
			if (value === null) params.delete(name);
			else params.set(name, value);
		return `?${params}${anchor}`;
	}
	/** In a table, a column for each field that some document says something in. */
	const columns = $derived([...new Map(seen.items.flatMap((document) => document.fields.map((field) => [field.name, field.words] as const)))]);
	const href = (document: { readonly slug: string }) => (seen.beside ? address({ read: document.slug }) : `/d/${document.slug}`);
	const language = $derived((page.data.language as Language | undefined) ?? 'en');
	const direction = $derived(directionOf(language));
	/** Of a document in another language than the one around it. */
	const says = (document: ListedDocument) =>
		document.language && document.language !== language ? { lang: document.language, dir: writtenFrom(document.language) } : {};
	const read = $derived(reading && isAsked ? seen.items.find((d) => d.slug === reading) : undefined);
</script>

<div class="listing" class:within={list !== null} id={anchor.slice(1) || undefined}>
	{#if seen.filters}
		<ListAsk {seen} {list} {asked} {filters} {others} {anchor} {address} />
	{/if}
	{#if seen.filters || (!seen.total && !seen.announced.length) || list === null}<p class="soft" role="status">
			{seen.total || seen.announced.length ? words('documents', { count: seen.total }) : words(narrowed ? 'nothingFits' : 'nothingListed')}
			{#if narrowed}<a href={address(Object.fromEntries(own.filter((name) => name !== 'list').map((name) => [name, null])))}>{words('showAll')}</a>{/if}
		</p>{/if}
	<div class="both" class:reading={read}>
		<div>
			{#if seen.show === 'table'}
				<table>
					<thead
						><tr
							><th scope="col">{words('document')}</th><th scope="col">{words('folder')}</th>{#each columns as [name, said] (name)}<th scope="col">{said}</th
								>{/each}<th scope="col">{words('pagesHead')}</th><th scope="col">{words('changed')}</th></tr
						></thead
					>
					<tbody>
						{#each seen.items as document (document.slug)}
							<tr aria-current={document.slug === read?.slug || undefined}>
								<td><a href={href(document)} data-sveltekit-noscroll>{document.title}</a></td><td>{document.folder}</td>{#each columns as [name] (name)}<td
										>{document.fields.find((field) => field.name === name)?.value ?? ''}</td
									>{/each}<td class="n">{document.pages}</td><td>{document.date}</td>
							</tr>
						{/each}
					</tbody>
				</table>
			{:else}
				{#snippet facts(document: ListedDocument)}
					{#if document.fields.length}<p class="fields">
							{#each document.fields as field (field.name)}<span
									>{field.words}: {#if field.href}<a href={field.href} rel="noopener">{field.value}</a>{:else}{field.value}{/if}</span
								>{/each}
						</p>{/if}
				{/snippet}
				{#snippet hits(document: ListedDocument)}
					{#each document.hits as hit (hit.page)}<FoundLine stretches={hit.stretches}>
							{#snippet where()}<a
									href="/d/{document.slug}/read#page={hit.page}&search={encodeURIComponent(asked.get('q') ?? '')}"
									lang={language}
									dir={direction}>{words('pageN', { page: hit.page })}</a
								>{/snippet}
						</FoundLine>{/each}
				{/snippet}
				{#if seen.show === 'covers'}
					<DocumentShelf documents={seen.items} href={(document) => href(document)} current={read?.slug} says={(document) => says(document as ListedDocument)}>
						{#snippet below(i)}
							{@const document = seen.items[i]!}
							{@render hits(document)}
							{@render facts(document)}
							<p class="soft" lang={language} dir={direction}>{document.facts}, {document.date}</p>
						{/snippet}
					</DocumentShelf>
				{:else if seen.items.length}
					<ul class="list">
						{#each seen.items as document (document.slug)}
							<li class="listed" aria-current={document.slug === read?.slug || undefined} {...says(document)}>
								<a class="stands" href={href(document)} tabindex="-1" aria-hidden="true" data-sveltekit-noscroll
									><Cover cover={document.cover} width={56} alt="" /></a
								>
								<div class="says">
									<h3><a href={href(document)} data-sveltekit-noscroll>{document.title}</a></h3>
									{#if document.description}<p class="about">{document.description}</p>{/if}
									{@render hits(document)}
									{@render facts(document)}
								</div>
								<p class="facts soft" lang={language} dir={direction}><span>{document.facts}</span><span>{document.date}</span></p>
							</li>
						{/each}
					</ul>
				{/if}
			{/if}
			{#if seen.total > step}
				<p class="turn">
					{#if seen.offset > 0}<a class="btn" href={address({ from: String(Math.max(0, seen.offset - step)) })}>{words('before')}</a>{/if}
					<span class="soft">{words('range', { from: seen.offset + 1, until: Math.min(seen.total, seen.offset + step), count: seen.total })}</span>
					{#if seen.offset + step < seen.total}<a class="btn" href={address({ from: String(seen.offset + step) })}>{words('further')}</a>{/if}
				</p>
			{/if}
			{#if seen.announced.length}<AnnouncedList documents={seen.announced} covers={seen.show === 'covers'} />{/if}
		</div>
		{#if read}
			<section class="beside" aria-label={words('reading', { title: read.title })}>
				<header>
					<strong>{read.title}</strong><a href="/d/{read.slug}">{words('aboutIt')}</a><a href={address({ read: null })} data-sveltekit-noscroll
						>{words('close')}</a
					>
				</header>
				{#key read.slug}<iframe src="/d/{read.slug}/read?frame=1&edge=1" title={read.title}></iframe>{/key}
			</section>
		{/if}
	</div>
</div>

<style>
	.fields {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 18px;
	}
	.both.reading {
		display: grid;
		grid-template-columns: minmax(220px, 320px) minmax(0, 1fr);
		gap: 24px;
	}
	ul {
		list-style: none;
		padding: 0;
	}
	h3 {
		font-size: 19px;
	}
	li :global(img) {
		display: block;
		width: auto;
		height: auto;
		background: #fff;
		box-shadow: 0 0 0 1px #1b2a2926;
	}
	ul.list {
		margin-top: 12px;
		border-top: 3px solid var(--ledge, var(--ink));
	}
	ul.list li {
		display: grid;
		grid-template-columns: 56px minmax(0, 1fr);
		gap: 2px 18px;
		padding: 16px 0;
		border-bottom: 1px solid var(--line);
	}
	ul.list .stands {
		grid-row: span 2;
		display: flex;
		justify-content: center;
		align-items: flex-start;
	}
	ul.list :global(img) {
		max-width: 56px;
		max-height: 80px;
	}
	ul.list .facts {
		grid-column: 2;
	}
	.about {
		display: -webkit-box;
		-webkit-line-clamp: 2;
		line-clamp: 2;
		-webkit-box-orient: vertical;
		overflow: hidden;
		margin-top: 2px;
	}
	.facts span + span::before {
		content: ', ';
	}
	tr[aria-current] a {
		border-bottom: 2px solid var(--brass-bright);
	}
	@media (min-width: 980px) {
		.listing:not(.within) .both:not(.reading) ul.list li {
			grid-template-columns: 56px minmax(0, 1fr) 190px;
			column-gap: 28px;
		}
		.listing:not(.within) .both:not(.reading) ul.list .facts {
			grid-column: 3;
			grid-row: 1;
		}
		.listing:not(.within) .both:not(.reading) ul.list .facts span {
			display: block;
		}
		.listing:not(.within) .both:not(.reading) ul.list .facts span + span::before {
			content: '';
		}
		.says > :not(h3) {
			max-width: 38em;
		}
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
		text-align: start;
		padding: 8px 0;
		padding-inline-end: 14px;
		border-bottom: 1px solid var(--line);
		vertical-align: top;
	}
	th {
		font-size: 13px;
		color: var(--ink-soft);
		font-weight: 400;
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
	.within {
		container-type: inline-size;
		margin: 18px 0;
		clear: both;
		scroll-margin-top: 12px;
	}
	.within .both.reading {
		display: grid;
		grid-template-columns: minmax(200px, 2fr) minmax(0, 3fr);
	}
	.within .beside {
		height: min(720px, calc(100dvh - 24px));
	}
	/* in an article that is too narrow for both, it is read above its list */
	@container (max-width: 559px) {
		.within .both.reading {
			grid-template-columns: minmax(0, 1fr);
		}
		.within .beside {
			order: -1;
			position: static;
		}
	}
	@media (max-width: 760px) {
		.both.reading {
			display: block;
		}
		.listing:not(.within) .beside {
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
