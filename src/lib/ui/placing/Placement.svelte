<!-- A placement as a reader sees it, in its form; where the document is kept from them, words and the way in. It stands within a
     paragraph, so that all of it is phrasing content. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { sillHeight } from '#core/placing/frame';
	import { cssWidth, type Form } from '#core/placing/placement';
	import type { SeenPlacement } from '$lib/server/placing/page-view';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import { words } from '$lib/ui/parts/words';
	import Cover from './Cover.svelte';
	import { firstCover } from './first-cover';
	import Picture from './Picture.svelte';
	let { seen, form }: { seen: SeenPlacement; form: Form } = $props();
	const first = firstCover();
	const px = (width: string | number | null, otherwise: number) => (typeof width === 'number' ? width : otherwise);
</script>

{#snippet pressed(kind: string, style: string | undefined, inside: Snippet)}
	{#if seen.state === 'open'}
		{@const { view } = seen}
		<a
			class={kind}
			{style}
			href={view.href}
			title={view.hover || undefined}
			target={view.newTab ? '_blank' : undefined}
			rel={view.newTab ? 'noopener' : undefined}
			download={view.download || undefined}
			data-over={view.over || undefined}
			data-sveltekit-reload={view.download || undefined}>{@render inside()}</a
		>
	{/if}
{/snippet}

{#snippet face(alt: string, width: number)}{#if seen.state === 'open'}{#if seen.view.picture}<Picture
				picture={seen.view.picture}
				alt={alt === seen.cover?.alt ? (seen.view.alt ?? '') : alt}
			/>{:else if seen.cover}<Cover cover={seen.cover} {width} {alt} lazy={first !== seen.id} />{/if}{/if}{/snippet}

{#if seen.state === 'open'}
	{@const { view } = seen}
	{#if form === 'text'}
		{#snippet inside()}{#if view.icon}<svg class="icon" viewBox="0 0 16 20" aria-hidden="true"><path d="M2 1h8l4 4v14H2zM10 1v4h4M5 9h6M5 12h6M5 15h4" /></svg
				>{/if}{view.words}{/snippet}
		{@render pressed('text', undefined, inside)}
		{#if view.said}<span class="facts">({view.said})</span>{/if}
	{:else if form === 'button'}
		{#snippet inside()}{#if view.icon}<svg class="icon" viewBox="0 0 16 20" aria-hidden="true"><path d="M2 1h8l4 4v14H2zM10 1v4h4M5 9h6M5 12h6M5 15h4" /></svg
				>{/if}{view.words}{#if view.said}<span>{view.said}</span>{/if}{/snippet}
		{@render pressed(`button ${view.style} ${view.align}`, view.width ? `width:${cssWidth(view.width)}` : undefined, inside)}
	{:else if form === 'cover'}
		{#snippet inside()}
			{#if seen.state === 'open' && (seen.cover ?? view.picture)}<span class="leaf" class:lined={view.border} class:raised={view.shadow}
					>{@render face(view.caption ? (seen.cover?.alt ?? '') : view.alt || view.words, px(view.width, 600))}</span
				>{/if}
			{#if view.caption || !(seen.state === 'open' && (seen.cover ?? view.picture))}<strong>{view.words}</strong>{#if view.said}<span>{view.said}</span
					>{/if}{/if}
		{/snippet}
		{@render pressed(`cover ${view.align}`, `width:${cssWidth(view.width ?? 300)}`, inside)}
	{:else if form === 'card'}
		{#snippet inside()}
			{#if seen.state === 'open'}
				{#if seen.cover ?? view.picture}<span class="leaf" class:lined={view.border} class:raised={view.shadow}>{@render face('', 120)}</span>{/if}
				<span class="says"
					><strong>{view.words}</strong>{#if seen.description}<span class="about">{seen.description}</span>{/if}{#if view.said}<span>{view.said}</span
						>{/if}</span
				>
			{/if}
		{/snippet}
		{@render pressed(`card ${view.align}`, `width:${cssWidth(view.width ?? '100%')}`, inside)}
	{:else if seen.frame && seen.cover}
		<span class="frame {view.align}" style="width:{cssWidth(view.width ?? '100%')}">
			<span
				class="hold"
				class:lined={view.border}
				style={view.height === 'worked out' ? `padding-bottom:calc(${(seen.frame.ratio * 100).toFixed(3)}% + ${sillHeight}px)` : `height:${view.height}px`}
				><iframe src={seen.frame.href} title={view.words} loading="lazy"></iframe></span
			>
			<a class="cover narrow" href="/d/{seen.slug}/read?from={seen.id}"
				><span class="leaf lined"><Cover cover={seen.cover} width={220} /></span><strong>{view.words}</strong></a
			>
			<span class="below"
				><a href="/d/{seen.slug}/read?from={seen.id}">{words('readWhole')}</a>{#if seen.maySave}<a
						href="/d/{seen.slug}/file?save&from={seen.id}"
						download
						data-sveltekit-reload>{words('save')}</a
					>{/if}</span
			>
		</span>
	{:else}<span class="away"><strong>{view.words}</strong>{words('notShown')}</span>{/if}
{:else if seen.state === 'kept'}
	{#if form === 'text' && !seen.locked}
		<a href={seen.href}>{seen.words}</a> <span class="facts">({words(seen.needsSignIn ? 'membersShort' : 'othersShort')})</span>
	{:else}
		<a class="kept" href={seen.href}
			><DoorMark position="keyed" height={form === 'text' || form === 'button' ? 24 : 56} /><span
				><strong>{seen.words}</strong>{words(seen.needsSignIn ? 'membersSignIn' : 'keptForOthers')}</span
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
	.icon {
		height: 0.95em;
		width: auto;
		display: inline-block;
		vertical-align: -0.1em;
		margin-right: 0.35em;
		fill: none;
		stroke: currentColor;
		stroke-width: 1.5;
	}
	.button {
		display: inline-flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 2px 10px;
		max-width: 100%;
		padding: 9px 18px;
		border: 2px solid var(--verdigris);
		background: var(--verdigris);
		color: var(--on-verdigris);
		border-radius: var(--corner);
		font: 600 1em var(--title);
		text-decoration: none;
	}
	.button.outlined {
		background: none;
		color: var(--outlined, var(--verdigris));
	}
	.button.centre,
	.button.right {
		display: flex;
		width: fit-content;
		margin-left: auto;
	}
	.button.centre {
		margin-right: auto;
	}
	/* titles may be one long word, on a narrow screen and with spacing of the reader's own */
	.button,
	.card,
	.cover,
	.kept,
	.away {
		overflow-wrap: anywhere;
	}
	@media (max-width: 480px) {
		.facts {
			white-space: normal;
		}
	}
	.button span {
		font-family: var(--body);
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
	.cover.right {
		float: right;
		margin: 4px 0 10px 24px;
	}
	.cover.centre {
		float: none;
		display: block;
		margin: 4px auto 10px;
	}
	@media (max-width: 600px) {
		.cover,
		.cover.right {
			float: none;
			display: inline-block;
			margin-inline: 0;
		}
	}
	.leaf {
		display: block;
	}
	.leaf :global(img) {
		display: block;
		width: 100%;
		height: auto;
		background: #fff;
	}
	.lined :global(img) {
		border: 1px solid var(--line);
	}
	.raised :global(img) {
		box-shadow: 0 2px 10px rgb(0 0 0 / 22%);
	}
	.cover .leaf {
		margin-bottom: 7px;
	}
	a:hover > .leaf.lined :global(img) {
		border-color: var(--verdigris);
	}
	.cover strong {
		display: block;
		font-family: var(--title);
		line-height: 1.3;
	}
	.cover > span:not(.leaf) {
		color: var(--ink-soft);
		font-size: 0.85em;
	}
	.card {
		display: flex;
		gap: 18px;
		max-width: 100%;
		padding: 14px;
		border: 1px solid var(--line);
		border-radius: var(--corner);
		background: var(--sheet);
		color: var(--ink);
		text-decoration: none;
	}
	.card:hover {
		border-color: var(--verdigris);
	}
	.card.centre {
		margin-inline: auto;
	}
	.card.right {
		margin-left: auto;
	}
	.card .leaf {
		flex: 0 0 clamp(64px, 20%, 120px);
	}
	.says {
		display: flex;
		flex-direction: column;
		gap: 5px;
		min-width: 0;
		color: var(--ink-soft);
		font-size: 0.9em;
	}
	.says strong {
		font: 600 1.15em/1.3 var(--title);
		color: var(--ink);
	}
	.says .about {
		color: var(--ink);
	}
	.frame {
		display: block;
		max-width: 100%;
		container-type: inline-size;
	}
	.frame.centre {
		margin-inline: auto;
	}
	.frame.right {
		margin-left: auto;
	}
	.hold {
		display: block;
		position: relative;
		box-sizing: content-box;
	}
	.hold.lined {
		border: 1px solid var(--line);
	}
	.hold iframe {
		position: absolute;
		inset: 0;
		width: 100%;
		height: 100%;
		border: 0;
	}
	.below {
		display: flex;
		gap: 18px;
		font-size: 0.88em;
		padding-top: 6px;
	}
	.frame .narrow {
		display: none;
	}
	/* too narrow for a frame to be read in: the cover and the way to the whole window stand in its place */
	@container (max-width: 479px) {
		.hold {
			display: none;
		}
		.frame .narrow {
			display: block;
			float: none;
			width: min(220px, 100%);
			margin: 0;
		}
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
