<!-- A page of the site by its layout, below the band that says what it is: one component for the site and for the preview. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import type { Article } from '#core/placing/content';
	import type { ArticleParts } from '#core/placing/parts';
	import { words } from '$lib/ui/parts/words';
	import type { SeenPage } from '$lib/server/placing/page-view';
	import Catalogue from './Catalogue.svelte';
	import Content from './Content.svelte';
	import Pocket from './Pocket.svelte';
	import { tellFirstCover } from './first-cover';
	interface Props {
		page: SeenPage;
		/** An article taken apart; null where it is none. */
		parts: ArticleParts | null;
		/** The document read beside a list. */
		reading?: string | null;
		query?: string;
	}
	let { page, parts, reading = null, query = '' }: Props = $props();
	const { body } = $derived(page);
	// a page is drawn once for each address
	untrack(() => {
		if (page.body.layout === 'article') tellFirstCover(page.body.content as Article, page.body.placements);
	});
</script>

{#if body.layout === 'article' && parts}
	<div class="article" class:sided={parts.headings.length > 2}>
		<article class="prose-page">
			<Content nodes={parts.rest} placements={body.placements} lists={{ seen: body.lists, reading, query }} />
		</article>
		{#if parts.headings.length > 2}
			<nav class="side" aria-labelledby="on-page">
				<h2 id="on-page">{words('onPage')}</h2>
				<ul>
					{#each parts.headings as heading (heading.anchor)}<li><a href="#{heading.anchor}">{heading.words}</a></li>{/each}
				</ul>
			</nav>
		{/if}
	</div>
{:else if body.layout === 'catalogue'}
	<Catalogue list={body.list} {reading} {query} />
{:else if body.layout === 'pocket'}
	<Pocket title={page.title} entries={body.entries} address={body.address} qr={body.qr} />
{/if}
<svelte:head><script src="/reading-over.js" defer></script><script src="/shown.js" defer></script></svelte:head>

<style>
	article {
		font-size: 17px;
		line-height: 1.6;
		overflow-wrap: break-word;
	}
	/* words in a column that can be read; lists, rows of cards and wide pictures as wide as there is room */
	article > :global(:not(.listing, .cards, figure.wide, .band-of-page)),
	article > :global(.band-of-page > :not(.listing, .cards, figure.wide)) {
		max-width: 736px;
	}
	article > :global(.listing) {
		clear: both;
	}
	/* covers at the right stand in a column of their own, where no headings have it */
	@media (min-width: 1200px) {
		.article:not(.sided) > article > :global(p > .cover.right) {
			max-width: 352px;
			margin-inline-end: -384px;
		}
	}
	.side h2 {
		font-size: 19px;
		padding-bottom: 8px;
		border-bottom: 3px solid var(--ledge);
	}
	.side a {
		display: block;
		padding: 9px 0;
		border-bottom: 1px solid var(--line);
		color: var(--ink);
		text-decoration: none;
		line-height: 1.35;
	}
	.side a:hover {
		text-decoration: underline;
	}
	@media (max-width: 979px) {
		.side {
			display: none;
		}
	}
	@media (min-width: 980px) {
		/* no further than its column, where the contents stand beside */
		.sided > article > :global(.band-of-page) {
			padding-inline: 24px;
			border-image-outset: 0;
		}
		.sided {
			display: grid;
			grid-template-columns: minmax(0, 736px) 1fr;
			gap: 48px;
			align-items: start;
		}
		.side {
			position: sticky;
			top: 24px;
		}
	}
</style>
