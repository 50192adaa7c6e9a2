<!-- A placement in the editor, drawn as its readers will see it; a reading frame as its first page with its measures. -->
<script lang="ts">
	import type { SvelteMap } from 'svelte/reactivity';
	import { cssWidth, ledTo, placementView, type KeptPlacement, type PlacementDefaults } from '#core/placing/placement';
	import { sillHeight } from '#core/placing/frame';
	import type { AtHand } from '$lib/server/placing/contract';
	import type { PageAtHand } from './article/nodes';
	import Cover from './Cover.svelte';
	import Placement from './Placement.svelte';
	let {
		props,
		documents,
		pages,
		defaults
	}: {
		props: SvelteMap<'attrs', KeptPlacement>;
		documents: SvelteMap<string, AtHand>;
		pages: SvelteMap<string, PageAtHand>;
		defaults: PlacementDefaults;
	} = $props();
	// the editor always gives them
	const attrs = $derived(props.get('attrs')!);
	const at = $derived(documents.get(attrs.document));
	const leads = $derived(ledTo(attrs));
	// its title comes a moment after the page
	const page = $derived(leads === null ? null : (pages.get(leads) ?? { path: leads, title: leads }));
	const view = $derived(at ? placementView(attrs, at, defaults, page) : null);
	const cover = $derived.by(() => {
		if (!at) return null;
		const page = view?.page && view.page <= at.pages ? view.page : null;
		return page ? { ...at.cover, query: `?e=${at.edition}-page-${page}&page=${page}` } : at.cover;
	});
</script>

{#if !at || !view || !cover}<span class="gone">{attrs.words ?? attrs.document} (not here any more)</span>
{:else if attrs.form === 'frame'}
	<span class="frame" style="width:{cssWidth(view.width ?? '100%')}">
		<span
			class="hold"
			style={view.height === 'worked out'
				? `padding-bottom:calc(${((at.cover.ratio ?? Math.SQRT2) * 100).toFixed(2)}% + ${sillHeight}px)`
				: `height:${view.height}px`}><span class="page"><Cover {cover} width={700} /></span><span class="sill">{view.words}</span></span
		>
	</span>
{:else}
	<Placement
		form={attrs.form}
		seen={{
			state: 'open',
			id: attrs.id,
			slug: attrs.document,
			title: at.title,
			description: view.description ? at.description : '',
			view,
			cover,
			maySave: true,
			frame: null
		}}
	/>
{/if}

<style>
	.gone {
		color: var(--brick);
	}
	.frame,
	.hold,
	.page,
	.sill {
		display: block;
	}
	.frame {
		max-width: 100%;
	}
	.hold {
		position: relative;
		overflow: hidden;
		border: 1px solid var(--edge);
		background: var(--reading-ground);
	}
	.page {
		position: absolute;
		inset: 0 0 46px;
		display: grid;
		place-items: center;
	}
	.page :global(img) {
		max-width: 100%;
		max-height: 100%;
		width: auto;
		height: 100%;
		object-fit: contain;
	}
	.sill {
		position: absolute;
		inset: auto 0 0;
		height: 46px;
		padding: 10px 14px;
		background: var(--verdigris-deep);
		color: var(--on-dark);
		font-size: 15px;
	}
</style>
