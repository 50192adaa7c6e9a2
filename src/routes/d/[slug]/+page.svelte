<!-- The document page: for people, and for search engines. -->
<script lang="ts">
	import { page } from '$app/state';
	import { sizeWords } from '#core/documents/size';
	import { dayText } from '$lib/ui/parts/when';
	import { words } from '$lib/ui/parts/words';
	import AskToRemember from '$lib/ui/parts/AskToRemember.svelte';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data } = $props();
	const document = $derived(data.document);
	const from = $derived(data.from ? `from=${encodeURIComponent(data.from)}` : '');
	const inPlace = $derived(data.inPlace && document.shown);
	const read = $derived(`/d/${document.slug}/read${from && `?${from}`}`);
	const save = $derived(`/d/${document.slug}/file?save${from && `&${from}`}`);
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
			url: `${page.url.origin}/d/${document.slug}`,
			thumbnailUrl: `${page.url.origin}/d/${document.slug}/cover/600.webp`
		}).replaceAll('<', '\\u003c')
	);
</script>

<svelte:head>
	<title>{document.title}, {data.site.name}</title>
	{#if document.description}<meta name="description" content={document.description} />{/if}
	<link rel="canonical" href="{page.url.origin}/d/{document.slug}" />
	{#if data.visitors}
		{@const self = `${page.url.origin}/d/${document.slug}`}
		<meta property="og:type" content="article" />
		<meta property="og:title" content={document.title} />
		{#if document.description}<meta property="og:description" content={document.description} />{/if}
		<meta property="og:url" content={self} />
		<meta property="og:site_name" content={data.site.name} />
		<meta property="og:image" content="{self}/cover/1200.webp" />
		<link rel="alternate" type="application/json+oembed" href="{page.url.origin}/oembed?url={encodeURIComponent(self)}" title={document.title} />
		<link rel="alternate" type="text/xml+oembed" href="{page.url.origin}/oembed?url={encodeURIComponent(self)}&format=xml" title={document.title} />
	{/if}
	{#if data.searchable}
		<!-- eslint-disable-next-line svelte/no-at-html-tags -- JSON made here, “<” escaped -->
		{@html `<script type="application/ld+json">${structured}${'<'}/script>`}
	{:else}<meta name="robots" content="noindex" />{/if}
</svelte:head>

<SiteFrame site={data.site} navigation={data.navigation} me={data.me} desk={{ href: `/desk/documents/${document.slug}`, words: 'Its sheet' }}>
	<article class:in-place={inPlace}>
		<a class="cover" href={read}>
			<img
				src="/d/{document.slug}/cover/600.webp?e={document.cover.mark}"
				srcset="/d/{document.slug}/cover/600.webp?e={document.cover.mark} 600w, /d/{document.slug}/cover/1200.webp?e={document.cover.mark} 1200w"
				sizes="300px"
				width="300"
				height={document.ratio === null ? undefined : Math.round(300 * document.ratio)}
				alt={document.cover.alt || words('coverOf', { title: document.title })}
			/>
		</a>
		<div>
			<h1>{document.title}</h1>
			{#if document.description}<p class="lead">{document.description}</p>{/if}
			{#if document.fields.length}
				<dl>
					{#each document.fields as field (field.name)}
						<dt>{field.words}</dt>
						<dd>
							{#if field.href}<a href={field.href} rel="noopener">{field.value}</a>{:else}{field.value}{/if}
						</dd>
					{/each}
				</dl>
			{/if}
			<p class="soft">
				{[
					'PDF',
					...(document.pages ? [words('pages', { count: document.pages }), sizeWords(document.bytes), document.paper] : []),
					dayText(document.changedAt, data.site.zone, Date.now(), data.language)
				].join(', ')}
			</p>
			<p class="do">
				{#if document.shown}<a class="btn main" href={read}>{words('read')}</a>{/if}
				{#if data.maySave}<a class="btn" href={save} download data-sveltekit-reload>{words('save')}</a>{/if}
			</p>
			{#if !document.shown}<p class="soft">{words('notShown')}</p>{/if}
			{#if !data.maySave}<p class="soft">{words('notSaved')}</p>{/if}
		</div>
	</article>
	{#if inPlace}
		<iframe class="reading" src="{read}{from ? '&' : '?'}frame=1&edge=1" title={words('reading', { title: document.title })}></iframe>
	{/if}
	{#if data.asks}<AskToRemember />{/if}
</SiteFrame>

<style>
	article {
		display: grid;
		grid-template-columns: 300px minmax(0, 1fr);
		gap: 36px;
	}
	.cover img {
		width: 100%;
		height: auto;
		border: 1px solid var(--line);
		background: #fff;
	}
	h1 {
		font-size: clamp(26px, 4vw, 34px);
		overflow-wrap: anywhere;
	}
	.lead {
		font-size: 17px;
		margin: 10px 0;
	}
	.do {
		display: flex;
		gap: 10px;
		margin: 20px 0;
	}
	.do .btn {
		height: 44px;
		padding: 0 26px;
		font-size: 15px;
	}
	/* with the document below, its first page need not be shown above at its full size */
	.in-place {
		grid-template-columns: 120px minmax(0, 1fr);
		gap: 24px;
	}
	dl {
		display: grid;
		grid-template-columns: max-content minmax(0, 1fr);
		gap: 4px 18px;
		margin: 14px 0;
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		overflow-wrap: anywhere;
	}
	.reading {
		display: block;
		width: 100%;
		height: min(1100px, max(420px, calc(100dvh - 60px)));
		margin-top: 22px;
		border: 1px solid var(--line);
	}
	@media (max-width: 700px) {
		article,
		article.in-place {
			grid-template-columns: 1fr;
			gap: 20px;
		}
		.cover {
			max-width: 220px;
		}
	}
</style>
