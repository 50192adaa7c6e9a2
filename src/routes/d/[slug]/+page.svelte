<!-- The document page: for people, and for search engines. -->
<script lang="ts">
	import { page } from '$app/state';
	import { sizeWords } from '#core/documents/size';
	import { lookPicture } from '#core/reading/look';
	import { writtenFrom } from '#core/words/words';
	import { dayText } from '$lib/ui/parts/when';
	import { words } from '$lib/ui/parts/words';
	import AskToRemember from '$lib/ui/parts/AskToRemember.svelte';
	import Cover from '$lib/ui/placing/Cover.svelte';
	import DocumentShelf from '$lib/ui/placing/DocumentShelf.svelte';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	import Receipt from '$lib/ui/reading/Receipt.svelte';
	import DocumentSide from './DocumentSide.svelte';
	let { data, form } = $props();
	const document = $derived(data.document);
	const from = $derived(data.from ? `from=${encodeURIComponent(data.from)}` : '');
	const inPlace = $derived(data.inPlace && document.shown);
	const read = $derived(`/d/${document.slug}/read${from && `?${from}`}`);
	const framed = $derived(`${read}${from ? '&' : '?'}frame=1&edge=1`);
	const save = $derived(`/d/${document.slug}/file?save${from && `&${from}`}`);
	const self = $derived(`${page.url.origin}/d/${document.slug}`);
	const day = $derived(dayText(document.changedAt, data.site.zone, Date.now(), data.language));
	const spokenAs = (language: string | null) => (language && language !== data.language ? { lang: language, dir: writtenFrom(language) } : {});
	const written = $derived(spokenAs(document.language));
	const language = $derived(document.language ? new Intl.DisplayNames(data.language, { type: 'language' }).of(document.language) : undefined);
	const library = $derived(data.navigation.find((item) => item.layout === 'catalogue'));
	const facts = $derived(['PDF', ...(document.pages ? [sizeWords(document.bytes)] : [])].join(', '));
	const may = $derived(data.maySave ? (data.mayPrint ? 'mayAll' : 'mayReadSave') : data.mayPrint ? 'mayReadPrint' : 'mayRead');
	const cover = $derived({ slug: document.slug, query: `?e=${document.cover.mark}`, alt: document.cover.alt, ratio: document.ratio });
	// schema.org, DigitalDocument. “<” is escaped, so that no title can close the element it stands in.
	const structured = $derived(
		JSON.stringify({
			'@context': 'https://schema.org',
			'@type': 'DigitalDocument',
			name: document.title,
			description: document.description || undefined,
			encodingFormat: 'application/pdf',
			dateModified: document.changedAt,
			inLanguage: document.language ?? undefined,
			numberOfPages: document.pages || undefined,
			publisher: { '@type': 'Organization', name: data.site.name, url: page.url.origin },
			url: self,
			contentUrl: data.visitorsSave ? `${self}/file` : undefined,
			thumbnailUrl: `${self}/cover/600.webp`
		}).replaceAll('<', '\\u003c')
	);
</script>

<svelte:head>
	<title>{document.title}, {data.site.name}</title>
	<meta name="description" content={document.description || `${document.title}: PDF, ${words('pages', { count: document.pages })}`} />
	<link rel="canonical" href={self} />
	<script src="/copy.js" defer></script>
	{#if data.visitors}
		<meta property="og:type" content="article" />
		<meta property="og:title" content={document.title} />
		{#if document.description}<meta property="og:description" content={document.description} />{/if}
		<meta property="og:url" content={self} />
		<meta property="og:site_name" content={data.site.name} />
		<meta property="og:image" content="{self}/cover/1200.jpg" />
		<meta property="og:image:type" content="image/jpeg" />
		{#if document.ratio}
			<meta property="og:image:width" content="1200" />
			<meta property="og:image:height" content={String(Math.round(1200 * document.ratio))} />
		{/if}
		<link rel="alternate" type="application/json+oembed" href="{page.url.origin}/oembed?url={encodeURIComponent(self)}" title={document.title} />
		<link rel="alternate" type="text/xml+oembed" href="{page.url.origin}/oembed?url={encodeURIComponent(self)}&format=xml" title={document.title} />
	{/if}
	{#if data.searchable}
		<!-- eslint-disable-next-line svelte/no-at-html-tags -- JSON made here, “<” escaped -->
		{@html `<script type="application/ld+json">${structured}${'<'}/script>`}
	{:else}<meta name="robots" content="noindex" />{/if}
</svelte:head>

{#snippet band()}
	<div class="wrap head">
		<div class="words">
			{#if library || document.folder}<p class="crumb">
					{#if library}<a href={library.path}>{library.label || library.title}</a>{/if}{#if document.folder}{library ? ' / ' : ''}<a
							href="/find?folder={encodeURIComponent(document.folder)}">{document.folder}</a
						>{/if}
				</p>{/if}
			<h1 {...written}>{document.title}</h1>
			<p class="is">
				{#if document.pages}<b>{words('pages', { count: document.pages })}</b>, {document.paper},{/if}
				{words('editionOf', { day })}
			</p>
			{#if document.description}<p class="lead" {...written}>{document.description}</p>{/if}
			<p class="do">
				{#if document.shown}<a class="btn main" href={read}>{words('read')}</a>{/if}
				{#if data.maySave}<a class="btn" href={save} download aria-label={words('save')}>{words('save')} <small>{facts}</small></a>{/if}
				{#if document.shown && data.inside.text !== 'no'}<a href="/d/{document.slug}/text{from && `?${from}`}">{words('readText')}</a>{/if}
			</p>
			{#if !document.shown}<p class="soft">{words('notShown')}</p>{/if}
			{#if !data.maySave}<p class="soft">{words('notSaved')}</p>{/if}
		</div>
		<a class="stood" href={read} tabindex="-1" aria-hidden="true"><Cover {cover} width={252} alt="" lazy={false} /></a>
	</div>
{/snippet}

<SiteFrame
	site={data.site}
	current={library?.path ?? ''}
	me={data.me}
	desk={{ href: `/desk/documents/${document.slug}`, words: 'Its sheet' }}
	spoken={null}
	{band}
>
	<div class="two">
		<div>
			{#if data.receipt}<div class="said" id="receipt"><Receipt slug={document.slug} receipt={data.receipt} trouble={form?.trouble} /></div>{/if}
			{#if document.shown}
				{#if inPlace}<iframe class="reading" src={framed} title={words('reading', { title: document.title })}></iframe>
				{:else}
					<details class="here">
						<summary>{words('readHere')}</summary>
						<iframe class="reading" src={framed} loading="lazy" title={words('reading', { title: document.title })}></iframe>
					</details>
				{/if}
			{/if}
			{#if data.inside.text === 'no' && document.pages}<p class="said">{words('taggedPictures')}</p>{/if}
			{#if document.pictures.length}
				<section class="pages" aria-labelledby="its-pages">
					<h2 id="its-pages">{words('itsPages')}</h2>
					<ol>
						{#each document.pictures as number (number)}<li>
								<a href="{read}#page={number}" aria-label={words('pageN', { page: number })}
									><img
										src="/d/{document.slug}/leaf/{number}.webp?w={lookPicture}&for=look&e={document.number}"
										alt=""
										width={lookPicture}
										height={Math.round(lookPicture * (document.ratio ?? Math.SQRT2))}
										loading="lazy"
									/><span aria-hidden="true">{number}</span></a
								>
							</li>{/each}
					</ol>
					{#if document.pages > document.pictures.length}<p><a href={read}>{words('allPages', { count: document.pages })}</a></p>{/if}
				</section>
			{/if}
			<h2>{words('aboutDocument')}</h2>
			<dl>
				{#each document.fields as field (field.name)}
					<dt>{field.words}</dt>
					<dd>
						{#if field.href}<a href={field.href} rel="noopener">{field.value}</a>{:else}{field.value}{/if}
					</dd>
				{/each}
				{#if document.pages}
					<dt>{words('pagesHead')}</dt>
					<dd>{document.pages}, {document.paper}</dd>
				{/if}
				<dt>{words('file')}</dt>
				<dd>{facts}</dd>
				<dt>{words('editionHead')}</dt>
				<dd>{day}</dd>
				{#if language}<dt>{words('languageHead')}</dt>
					<dd>{language}</dd>{/if}
				{#if document.pages}
					<dt>{words('accessible')}</dt>
					<dd>{words(data.inside.text === 'no' ? 'taggedPictures' : data.inside.tagged ? 'taggedYes' : 'taggedNo')}</dd>
				{/if}
				<dt>{words('youMay')}</dt>
				<dd>{words(may)}</dd>
			</dl>
		</div>
		<DocumentSide {data} {read} {written} />
	</div>
	{#if data.related.length}
		<section class="related" aria-labelledby="related">
			<h2 id="related">{words('goesWith')}</h2>
			<DocumentShelf documents={data.related} says={(other) => spokenAs(data.related.find(({ slug }) => slug === other.slug)?.language ?? null)}>
				{#snippet below(i)}<p class="soft">{data.related[i]!.facts}</p>{/snippet}
			</DocumentShelf>
		</section>
	{/if}
	{#if data.asks}<AskToRemember />{/if}
</SiteFrame>

<style>
	.head {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto;
		gap: 20px 32px;
		padding-block: 40px 0;
		border-bottom: 3px solid var(--ledge);
		width: 100%;
		padding-inline: max(var(--margin), calc((100% - 1120px) / 2));
	}
	.words {
		align-self: end;
		padding-bottom: 40px;
		min-width: 0;
	}
	.crumb {
		margin-bottom: 8px;
		font-size: 15px;
		color: var(--soft-on-wash);
	}
	.crumb a {
		color: inherit;
	}
	h1 {
		font-size: clamp(28px, 4.6vw, 44px);
		line-height: 1.12;
		overflow-wrap: anywhere;
		hyphens: auto;
	}
	.is {
		margin-top: 10px;
		color: var(--soft-on-wash);
	}
	.is b {
		font-weight: 600;
		color: var(--ink);
	}
	.do {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 10px 14px;
		margin-top: 22px;
	}
	.do .btn {
		min-height: 48px;
		padding: 8px 22px;
		font-size: 17px;
		font-weight: 600;
	}
	.do a:not(.btn) {
		padding: 10px 4px;
		color: var(--ink);
	}
	.do small {
		font-weight: 400;
		font-size: 15px;
	}
	.words .soft {
		margin-top: 10px;
		color: var(--soft-on-wash);
	}
	.stood {
		align-self: end;
	}
	.stood :global(img) {
		display: block;
		width: auto;
		height: auto;
		max-width: min(252px, 30vw);
		max-height: 340px;
		background: #fff;
		box-shadow: 0 0 0 1px #1b2a2926;
	}
	.two {
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		gap: 40px 32px;
	}
	.two > div {
		min-width: 0;
	}
	h2 {
		font-size: 24px;
		margin-bottom: 8px;
	}
	.here {
		margin-bottom: 30px;
	}
	.here summary {
		min-height: 48px;
		align-content: center;
		font: 600 20px var(--title);
		cursor: pointer;
		border-bottom: 3px solid var(--ledge);
	}
	.reading {
		display: block;
		width: 100%;
		height: min(1000px, max(420px, calc(100dvh - 60px)));
		margin-bottom: 30px;
		border: 1px solid var(--line);
	}
	.here .reading {
		margin-top: 12px;
	}
	.pages {
		margin-bottom: 30px;
	}
	.pages ol {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(96px, 1fr));
		gap: 16px 12px;
		align-items: end;
		list-style: none;
	}
	.pages li a {
		display: block;
		text-align: center;
		text-decoration: none;
		color: var(--ink-soft);
		font-size: 15px;
	}
	.pages img {
		display: block;
		width: 100%;
		height: auto;
		background: #fff;
		box-shadow: 0 0 0 1px var(--line);
	}
	.pages a:hover img {
		box-shadow: 0 0 0 2px var(--verdigris);
	}
	.pages p {
		margin-top: 10px;
	}
	.said {
		margin-bottom: 24px;
		padding: 12px 18px;
		background: var(--stone);
		border-inline-start: 4px solid var(--brass-bright);
	}
	dl {
		display: grid;
		grid-template-columns: fit-content(45%) minmax(0, 1fr);
		border-top: 1px solid var(--line);
	}
	dt,
	dd {
		padding: 8px 0;
		border-bottom: 1px solid var(--line);
	}
	dt {
		padding-inline-end: 24px;
		color: var(--ink-soft);
	}
	dd {
		overflow-wrap: anywhere;
	}
	.related {
		margin-top: 56px;
	}
	@media (min-width: 980px) {
		.two {
			grid-template-columns: minmax(0, 736px) minmax(0, 1fr);
		}
	}
	@media (max-width: 759px) {
		.head {
			grid-template-columns: minmax(0, 1fr) 96px;
			gap: 0 16px;
			padding-top: 24px;
		}
		.head .words {
			display: contents;
		}
		.crumb,
		.is,
		.lead,
		.do,
		.head .soft {
			grid-column: 1 / -1;
		}
		h1 {
			align-self: end;
		}
		.stood {
			grid-column: 2;
			grid-row: 2;
		}
		.stood :global(img) {
			max-width: 96px;
			max-height: 136px;
		}
		.do {
			padding-bottom: 24px;
		}
		.do .btn {
			flex: 1 1 auto;
		}
	}
</style>
