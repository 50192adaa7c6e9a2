<!-- Documents standing on a line, their words below it. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { SeenCover } from '$lib/server/placing/page-view';
	import Cover from './Cover.svelte';
	interface Standing {
		readonly slug: string;
		readonly title: string;
		readonly cover: SeenCover;
	}
	let {
		documents,
		href = ({ slug }) => `/d/${slug}`,
		current,
		says = () => ({}),
		below
	}: {
		documents: readonly Standing[];
		href?: (document: Standing) => string;
		/** The one that is read beside them. */
		current?: string | undefined;
		/** Language and direction of a title, where they are others than those around it. */
		says?: (document: Standing) => { lang?: string; dir?: 'ltr' | 'rtl' };
		/** What is said of each, by its place among them. */
		below: Snippet<[number]>;
	} = $props();
</script>

<ul class="covers">
	{#each documents as document, i (document.slug)}
		<li class="listed" aria-current={document.slug === current || undefined} {...says(document)}>
			<a class="stands" href={href(document)} tabindex="-1" aria-hidden="true" data-sveltekit-noscroll><Cover cover={document.cover} width={178} alt="" /></a>
			<h3><a href={href(document)} data-sveltekit-noscroll>{document.title}</a></h3>
			<div class="below">{@render below(i)}</div>
		</li>
	{/each}
</ul>

<style>
	ul {
		container-type: inline-size;
	}
	ul,
	li {
		list-style: none;
		padding: 0;
	}
	.covers {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(148px, 1fr));
		row-gap: 28px;
		margin-top: 18px;
	}
	li {
		display: grid;
		grid-template-rows: subgrid;
		grid-row: span 3;
		row-gap: 0;
		min-width: 0;
	}
	.stands {
		display: flex;
		align-items: flex-end;
		height: 190px;
		padding-inline-end: 18px;
		border-bottom: 3px solid var(--ledge, var(--ink));
	}
	.stands :global(img) {
		display: block;
		width: auto;
		height: auto;
		max-height: 182px;
		max-width: min(100%, 134px);
		background: #fff;
		box-shadow: 0 0 0 1px #1b2a2926;
	}
	li:hover .stands :global(img) {
		translate: 0 -4px;
	}
	h3 {
		padding: 10px 0 0;
		padding-inline-end: 16px;
		font-size: 17px;
		hyphens: auto;
	}
	.below {
		padding-inline-end: 16px;
		font-size: 15px;
		line-height: 1.4;
	}
	@media (min-width: 760px) {
		.covers {
			grid-template-columns: repeat(auto-fill, minmax(clamp(148px, 18cqw, 200px), 1fr));
		}
	}
</style>
