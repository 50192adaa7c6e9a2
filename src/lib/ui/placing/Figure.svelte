<!-- A picture on a page: as wide and where the page says, with the words below it, leading somewhere or not. -->
<script lang="ts">
	import type { PictureAttrs } from '#core/placing/content';
	import { cssWidth } from '#core/placing/placement';
	import Picture from './Picture.svelte';
	let { attrs }: { attrs: PictureAttrs } = $props();
</script>

{#snippet drawn()}<Picture picture={attrs.picture} alt={attrs.alt ?? ''} width={attrs.width} height={attrs.height} />{/snippet}

<figure class={attrs.align} style={attrs.shown && attrs.align !== 'wide' ? `width:${cssWidth(attrs.shown)}` : undefined}>
	{#if attrs.href}<a href={attrs.href} rel="noopener" aria-label={attrs.alt ? undefined : (attrs.caption ?? attrs.href)}>{@render drawn()}</a
		>{:else}{@render drawn()}{/if}
	{#if attrs.caption}<figcaption>{attrs.caption}</figcaption>{/if}
</figure>

<style>
	figure {
		width: fit-content;
		max-width: 100%;
		margin-inline: 0;
	}
	figure :global(img) {
		display: block;
		width: auto;
		max-width: 100%;
		height: auto;
	}
	figure[style] :global(img) {
		width: 100%;
	}
	figure.wide {
		clear: both;
		width: auto;
	}
	figure.wide :global(img) {
		width: 100%;
	}
	figure.centre {
		margin-inline: auto;
	}
	figure.left {
		float: left;
		margin: 4px 24px 10px 0;
	}
	figure.right {
		float: right;
		margin: 4px 0 10px 24px;
	}
	figcaption {
		padding-top: 6px;
		color: var(--ink-soft);
		font-size: 0.88em;
		line-height: 1.4;
	}
	@media (max-width: 600px) {
		figure.left,
		figure.right {
			float: none;
			margin: 4px 0 10px;
		}
	}
</style>
