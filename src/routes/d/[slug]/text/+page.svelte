<!-- A document as text: for phones, large type, screen readers and reading aloud. Everything but reading aloud works without script. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { page as address } from '$app/state';
	import { writtenFrom } from '#core/words/words';
	import { words } from '$lib/ui/parts/words';
	import ReadAloud from '$lib/ui/reading/ReadAloud.svelte';
	import Receipt from '$lib/ui/reading/Receipt.svelte';
	import { Reporter } from '$lib/ui/reading/reporter';
	import TextChoices from './TextChoices.svelte';
	import { siteColours } from '#core/site/look';
	let { data } = $props();
	const doc = $derived(data.document);
	const from = $derived(data.from ? `from=${encodeURIComponent(data.from)}&` : '');
	const printed = (page: number) => `/d/${doc.slug}/read${data.from ? `?from=${encodeURIComponent(data.from)}` : ''}#page=${page}`;
	const at = (page: number) => `/d/${doc.slug}/text?${from}page=${page}#p${page}`;
	const said = $derived({ lang: doc.language ?? undefined, dir: doc.language ? writtenFrom(doc.language) : undefined });
	let gone = $state(false);
	let text: HTMLElement;
	onMount(() => {
		const leave = new AbortController();
		const reporter = new Reporter(`/d/${doc.slug}/read/told?e=${doc.edition}${data.from ? `&from=${encodeURIComponent(data.from)}` : ''}`, () => (gone = true));
		reporter.begin(leave.signal);
		const seen = new Map<Element, { page: number; ofPage: number; ofWindow: number }>();
		const observer = new IntersectionObserver(
			(entries) => {
				for (const { target, intersectionRatio, intersectionRect } of entries)
					seen.set(target, { page: Number((target as HTMLElement).dataset.page), ofPage: intersectionRatio, ofWindow: intersectionRect.height / innerHeight });
				reporter.see([...seen.values()].filter((one) => one.ofPage > 0));
			},
			{ threshold: [0, 0.1, 0.25, 0.5, 0.75, 1] }
		);
		for (const section of text.querySelectorAll('section[data-page]')) observer.observe(section);
		return () => {
			observer.disconnect();
			leave.abort();
		};
	});
</script>

<svelte:head>
	<title>{doc.title}: {words('asText')}, {data.site.name}</title>
	<link rel="canonical" href="{address.url.origin}/d/{doc.slug}" />
	{#if !data.searchable}<meta name="robots" content="noindex" />{/if}
</svelte:head>

{#snippet contents()}
	<ol>
		{#each data.outline as line, i (i)}<li class:sub={line.depth > 0}><a href={at(line.page ?? 1)} {...said}>{line.title}</a></li>{/each}
	</ol>
{/snippet}

<div
	class="site text size-{data.settings.size} spacing-{data.settings.spacing} width-{data.settings.width} {data.settings.paper
		? `on-${data.settings.paper}`
		: ''}"
	style={siteColours(data.site)}
>
	<a class="skip" href="#content">{words('toContent')}</a>
	<header>
		<a class="back" href="/d/{doc.slug}">{doc.title}</a>
	</header>
	<div class="columns">
		{#if data.outline.length > 1}<nav class="side" aria-labelledby="in-it">
				<h2 id="in-it">{words('contents')}</h2>
				{@render contents()}
			</nav>{/if}
		<main id="content" bind:this={text}>
			{#if gone}<p class="trouble" role="alert">{words('notHereNow')}</p>{/if}
			<h1 {...said}>{doc.title}</h1>
			{#if !doc.shown}<p>{words('notShown')}</p>{/if}
			{#if data.first > 1}<p class="turn"><a class="btn" href={at(data.first - 1)}>{words('earlierPages')}</a></p>{/if}
			{#each data.pages as { page, blocks } (page)}
				<section data-page={page} id="p{page}" aria-label={words('pageN', { page })}>
					<p class="mark"><a href={printed(page)}>{words('pageN', { page })}<span class="sr-only">: {words('asPrinted')}</span></a></p>
					<div {...said}>
						{#each blocks as block, i (i)}
							{#if block.kind === 'heading'}<svelte:element this={`h${block.level}`} data-say>{block.text}</svelte:element>
							{:else if block.kind === 'item'}<ul><li data-say>{block.text}</li></ul>
							{:else if block.kind === 'picture'}<p class="picture" data-say>{block.text}</p>
							{:else if block.kind === 'table'}
								<div class="rows">
									<table>
										<tbody>
											{#each block.rows as row, r (r)}<tr
													>{#each row as cell, c (c)}{#if block.head && r === 0}<th scope="col">{cell}</th>{:else}<td>{cell}</td>{/if}{/each}</tr
												>{/each}
										</tbody>
									</table>
								</div>
							{:else}<p data-say>{block.text}</p>{/if}
						{/each}
					</div>
					{#if !blocks.length}
						<p class="picture">{words('pagePicture', { page })}</p>
						<a href={printed(page)}><img src="/d/{doc.slug}/leaf/{page}.webp?w=900&e={doc.edition}" alt={words('pageN', { page })} loading="lazy" /></a>
					{/if}
				</section>
			{/each}
			{#if data.last < doc.pages}<p class="turn"><a class="btn" href={at(data.last + 1)}>{words('laterPages')}</a></p>
			{:else if data.receipt}<div class="turn"><Receipt slug={doc.slug} receipt={data.receipt} /></div>{/if}
		</main>
		<div class="side settings"><TextChoices settings={data.settings} /></div>
	</div>
	<footer class="sill">
		<a class="btn" href="/d/{doc.slug}/read{data.from ? `?from=${encodeURIComponent(data.from)}` : ''}#page={data.first}">{words('asPrinted')}</a>
		<form action="/d/{doc.slug}/text">
			{#if data.from}<input type="hidden" name="from" value={data.from} />{/if}
			<label
				><span class="sr-only">{words('goToPage')}</span><input class="field" name="page" inputmode="numeric" size="4" value={data.first} />
				/ {doc.pages}</label
			>
		</form>
		<ReadAloud within={() => text} language={doc.language ?? data.language} />
		<details class="aa">
			<summary aria-label={words('settingsOfText')}>Aa</summary>
			<div>
				<TextChoices settings={data.settings} />
				{#if data.outline.length > 1}<h2>{words('contents')}</h2>
					{@render contents()}{/if}
			</div>
		</details>
		{#if data.maySave}<a class="btn save" href="/d/{doc.slug}/file?save{data.from ? `&from=${encodeURIComponent(data.from)}` : ''}" download>{words('save')}</a
			>{/if}
	</footer>
</div>

<style>
	.text {
		--paper: light-dark(#fffdf8, #1b2524);
		--paper-ink: light-dark(#1b2a29, #ece7db);
		--paper-soft: light-dark(#51605d, #a9b3ad);
		/* the paper may be another than that of the page around it: what is light or dark by it is said anew */
		--ink: light-dark(#1b2a29, #ece7db);
		min-height: 100dvh;
		display: flex;
		flex-direction: column;
		background: var(--paper);
		color: var(--paper-ink);
		font-size: 18px;
		line-height: 1.62;
		--column: 640px;
	}
	.on-day {
		color-scheme: light;
	}
	.on-straw {
		color-scheme: light;
		--paper: #f6ead0;
		--paper-ink: #2b2113;
		--paper-soft: #5f5136;
	}
	.on-night {
		color-scheme: dark;
		--paper: #141c1b;
	}
	.size-small {
		font-size: 16px;
	}
	.size-large {
		font-size: 22px;
	}
	.size-largest {
		font-size: 28px;
	}
	.spacing-wide {
		line-height: 2;
		letter-spacing: 0.03em;
		word-spacing: 0.12em;
	}
	.width-narrow {
		--column: 480px;
	}
	.width-wide {
		--column: 860px;
	}
	header {
		padding: 14px 20px;
		border-bottom: 3px solid var(--ledge);
		font-size: 16px;
	}
	.back {
		font: 600 17px var(--title);
		color: inherit;
	}
	.columns {
		flex: 1;
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		justify-content: center;
		padding: 28px 20px 90px;
	}
	.side {
		display: none;
		font-size: 15px;
		line-height: 1.4;
	}
	.side h2,
	.aa h2 {
		margin: 14px 0 6px;
		font: 600 15px var(--body);
		color: var(--paper-soft);
	}
	.side ol,
	.aa ol {
		padding: 0;
		list-style: none;
	}
	.side li a,
	.aa li a {
		display: block;
		padding: 7px 0;
		border-bottom: 1px solid var(--line);
		color: inherit;
		text-decoration: none;
	}
	.side li a:hover,
	.aa li a:hover {
		text-decoration: underline;
	}
	.sub {
		padding-inline-start: 14px;
	}
	main {
		width: 100%;
		max-width: var(--column);
		margin-inline: auto;
		overflow-wrap: break-word;
	}
	h1 {
		font-size: 1.9em;
		line-height: 1.15;
		margin-bottom: 0.6em;
	}
	main :global(:is(h2, h3, h4)) {
		margin: 1.5em 0 0.4em;
		font: 600 1.45em/1.2 var(--title);
	}
	main :global(h3) {
		font-size: 1.22em;
	}
	main :global(h4) {
		font-size: 1.08em;
	}
	section p {
		margin: 0 0 1em;
	}
	.mark {
		display: flex;
		align-items: center;
		gap: 12px;
		margin: 1.4em 0 0.8em;
		font-size: 15px;
		line-height: 1.3;
	}
	.mark::before,
	.mark::after {
		content: '';
		flex: 1;
		border-top: 1px solid var(--line);
	}
	.mark a {
		padding: 6px 4px;
	}
	.mark a {
		color: var(--paper-soft);
	}
	section ul {
		margin: 0 0 0.5em;
		padding-inline-start: 1.3em;
		list-style: disc;
	}
	.picture {
		padding-inline-start: 14px;
		border-inline-start: 3px solid var(--line);
		color: var(--paper-soft);
	}
	section img {
		width: 100%;
		height: auto;
		background: #fff;
	}
	.rows {
		overflow-x: auto;
		margin-bottom: 1em;
	}
	table {
		border-collapse: collapse;
		font-size: 0.9em;
		line-height: 1.45;
	}
	th,
	td {
		padding: 6px 14px 6px 0;
		border-bottom: 1px solid var(--line);
		text-align: start;
		vertical-align: top;
		min-width: 5em;
	}
	.turn {
		text-align: center;
	}
	.btn {
		min-height: 44px;
		background: var(--paper);
	}
	.sill {
		position: sticky;
		bottom: 0;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px 12px;
		padding: 8px 20px;
		background: var(--band);
		color: var(--on-band);
		font-size: 15px;
		line-height: 1.3;
	}
	.sill :global(.btn) {
		background: none;
		border-color: color-mix(in oklab, var(--band), var(--on-band) 55%);
		color: var(--on-band);
		font-size: 15px;
	}
	.sill .field {
		height: 44px;
		width: 4.4em;
		text-align: center;
		font-size: 15px;
	}
	.save {
		margin-inline-start: auto;
	}
	.aa summary {
		display: grid;
		place-items: center;
		min-width: 44px;
		min-height: 44px;
		padding: 0 10px;
		border: 1px solid color-mix(in oklab, var(--band), var(--on-band) 55%);
		border-radius: var(--corner);
		cursor: pointer;
		list-style: none;
		font: 600 17px var(--title);
	}
	.aa > div {
		position: fixed;
		inset: auto 0 62px;
		max-height: 70dvh;
		overflow: auto;
		padding: 4px 20px 20px;
		background: var(--paper);
		color: var(--paper-ink);
		border-top: 3px solid var(--ledge);
	}
	@media (min-width: 1100px) {
		.columns {
			grid-template-columns: 210px minmax(0, var(--column)) 210px;
			gap: 48px;
		}
		.columns:not(:has(nav.side)) {
			grid-template-columns: minmax(0, var(--column)) 210px;
		}
		.side {
			display: block;
			position: sticky;
			top: 20px;
			align-self: start;
			max-height: calc(100dvh - 100px);
			overflow: auto;
		}
		.aa {
			display: none;
		}
	}
	@media print {
		.sill,
		.side,
		.turn {
			display: none;
		}
	}
</style>
