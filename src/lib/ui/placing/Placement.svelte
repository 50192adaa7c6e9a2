<!-- A placement as a reader sees it: text link, button or cover; where the document is kept from them, words and the way in. -->
<script lang="ts">
	import type { SeenPlacement } from '$lib/server/placing/service';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	let { seen, form }: { seen: SeenPlacement; form: 'text' | 'button' | 'cover' } = $props();
</script>

{#if seen.state === 'open'}
	{@const { view } = seen}
	{@const target = view.newTab ? '_blank' : undefined}
	{#if form === 'text'}
		<a href={view.href} {target} rel={target && 'noopener'} download={view.download || undefined} data-sveltekit-reload={view.download || undefined}
			>{view.words}</a
		> <span class="facts">({view.facts})</span>
	{:else if form === 'button'}
		<a
			class="button"
			href={view.href}
			{target}
			rel={target && 'noopener'}
			download={view.download || undefined}
			data-sveltekit-reload={view.download || undefined}>{view.words}<span>{view.facts}</span></a
		>
	{:else}
		<a
			class="cover"
			style="width:{view.width}px"
			href={view.href}
			{target}
			rel={target && 'noopener'}
			download={view.download || undefined}
			data-sveltekit-reload={view.download || undefined}
		>
			<img
				src="/d/{seen.slug}/cover/{view.width > 300 ? 600 : 300}.webp?e={seen.cover.mark}"
				srcset="/d/{seen.slug}/cover/600.webp?e={seen.cover.mark} 600w, /d/{seen.slug}/cover/1200.webp?e={seen.cover.mark} 1200w"
				sizes="{view.width}px"
				width={view.width}
				height={seen.leafRatio === null ? undefined : Math.round(view.width * seen.leafRatio)}
				alt={seen.cover.alt || `Cover of ${view.words}`}
				loading="lazy"
			/>
			<strong>{view.words}</strong><span>{view.facts}</span>
		</a>
	{/if}
{:else if seen.state === 'kept'}
	{#if form === 'text'}
		<a href={seen.href}>{seen.words}</a> <span class="facts">({seen.needsSignIn ? 'for members, sign in' : 'kept for others'})</span>
	{:else}
		<a class="kept" href={seen.href}
			><DoorMark position="keyed" height={form === 'cover' ? 56 : 24} /><span
				><strong>{seen.words}</strong>{seen.needsSignIn ? 'For members: sign in to open it' : 'Kept for others'}</span
			></a
		>
	{/if}
{:else if form === 'text'}{seen.words ?? ''} <span class="facts">({seen.notice})</span>
{:else}<span class="away"
		>{#if seen.words}<strong>{seen.words}</strong>{/if}{seen.notice}</span
	>{/if}

<style>
	.facts {
		color: var(--ink-soft);
		font-size: 0.88em;
		white-space: nowrap;
	}
	.button {
		display: inline-flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 2px 10px;
		padding: 9px 18px;
		background: var(--verdigris);
		color: var(--on-verdigris);
		border-radius: var(--corner);
		font-weight: 600;
		text-decoration: none;
	}
	.button span {
		font-weight: 400;
		font-size: 0.85em;
	}
	.cover {
		float: left;
		max-width: 100%;
		color: var(--ink);
		text-decoration: none;
		margin: 4px 24px 10px 0;
	}
	@media (max-width: 600px) {
		.cover {
			float: none;
			display: inline-block;
		}
	}
	.cover img {
		display: block;
		max-width: 100%;
		height: auto;
		border: 1px solid var(--line);
		background: #fff;
		margin-bottom: 7px;
	}
	.cover:hover img {
		border-color: var(--verdigris);
	}
	.cover strong {
		display: block;
		font-family: var(--title);
		line-height: 1.3;
	}
	.cover span {
		color: var(--ink-soft);
		font-size: 0.85em;
	}
	.kept {
		display: inline-flex;
		align-items: center;
		gap: 14px;
		padding: 12px 18px;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		background: var(--sheet);
		color: var(--ink-soft);
		text-decoration: none;
		max-width: 100%;
	}
	.away {
		display: inline-block;
		padding: 12px 18px;
		border: 1px dashed var(--edge);
		border-radius: var(--corner);
		color: var(--ink-soft);
	}
	.away strong,
	.kept strong {
		display: block;
		color: var(--ink);
		font-family: var(--title);
	}
</style>
