<!-- What stands around a page of the site: its name, its navigation with an arch where one is, find, who is signed in; the band that opens the
     page; what it says of itself below. Nothing of the desk, and all of it without script. -->
<script lang="ts">
	import '../site.css';
	import type { Snippet } from 'svelte';
	import { page } from '$app/state';
	import { siteColours } from '#core/site/look';
	import { directionOf, type Language } from '#core/words/words';
	import { words } from '$lib/ui/parts/words';
	import type { NavigationItem } from '$lib/server/placing/views';
	import type { SiteLook } from '$lib/server/site/site';
	import Arches from './Arches.svelte';
	import Notice from './Notice.svelte';
	import SiteFoot from './SiteFoot.svelte';
	import SiteHead from './SiteHead.svelte';
	let {
		site,
		navigation,
		current = page.url.pathname,
		me = null,
		desk,
		title,
		lead,
		spoken = null,
		front = false,
		narrow = false,
		threshold = false,
		band,
		children
	}: {
		site: SiteLook;
		/** What is in the navigation for somebody else than the caller: in a preview. */
		navigation?: readonly NavigationItem[];
		current?: string;
		me?: { name: string; staff: boolean } | null;
		/** Where the desk has what is shown, for staff. */
		desk?: { readonly href: string; readonly words: string } | undefined;
		/** Of the band that opens the page; without one there is no band. */
		title?: string | undefined;
		lead?: string | undefined;
		/** The language of what the page says, where that is not the one the reader is spoken to in. */
		spoken?: Language | null;
		/** It is the front page: its band is deep, with the owner's picture. */
		front?: boolean;
		/** Its column stands in the middle: there is nothing beside it. */
		narrow?: boolean;
		/** It stands in an archway before a door: signing in, a key, nothing here. */
		threshold?: boolean;
		/** In place of title and lead. */
		band?: Snippet;
		children: Snippet;
	} = $props();
	const items = $derived(navigation ?? (page.data.navigation as readonly NavigationItem[] | undefined) ?? []);
	const language = $derived((page.data.language as Language | undefined) ?? 'en');
	const own = $derived(spoken && spoken !== language ? { lang: spoken, dir: directionOf(spoken) } : {});
</script>

<svelte:head
	>{#if site.favicon}<link rel="icon" href="/picture/{site.favicon}.webp?w=64" type="image/webp" />{/if}</svelte:head
>

<div class="site" class:front class:narrow class:threshold style={siteColours(site)}>
	<a class="skip" href="#content">{words('toContent')}</a>
	<SiteHead {site} {items} {current} {me} {desk} {own} {front} />
	{#if band}<div class="band">{@render band()}</div>
	{:else if title !== undefined}
		<div class="band" class:pictured={front && site.band}>
			{#if front && site.band}<img class="behind" src="/picture/{site.band}.webp?w=1600" alt="" />{/if}
			<div class="wrap">
				<div class="words" {...own}>
					<h1>{title}</h1>
					{#if lead}<p class="lead">{lead}</p>{/if}
				</div>
			</div>
			{#if front && !site.band}<Arches />{/if}
		</div>
	{/if}
	{#if site.notice}<Notice notice={site.notice} {own} />{/if}
	<main id="content" class="wrap" {...own}>{@render children()}</main>
	<SiteFoot {site} {items} {own} />
</div>

<style>
	.site {
		min-height: 100dvh;
		display: flex;
		flex-direction: column;
		background: var(--sheet);
		font-size: 16px;
		--page-band: var(--wash);
	}
	.site.front {
		--page-band: var(--band);
	}

	.band {
		position: relative;
		background: var(--wash);
		overflow: hidden;
	}
	.band > .wrap {
		padding-block: 26px;
	}
	.band h1 {
		font-size: clamp(30px, 5vw, 46px);
		line-height: 1.12;
		letter-spacing: -0.01em;
		overflow-wrap: anywhere;
		text-wrap: balance;
	}
	.band .words {
		position: relative;
		max-width: 736px;
	}
	.front .band {
		background: var(--band);
		color: var(--on-band);
	}
	.front .words .lead {
		max-width: 27em;
		color: var(--soft-on-band);
	}
	.front .band > .wrap {
		padding-block: 40px 44px;
	}
	.front .pictured .words {
		width: fit-content;
		padding: 20px 26px;
		background: color-mix(in oklab, var(--band) 78%, transparent);
	}
	.behind {
		position: absolute;
		inset: 0;
		width: 100%;
		height: 100%;
		object-fit: cover;
	}
	main {
		flex: 1 0 auto;
		padding-block: 26px 48px;
		display: flow-root;
	}
	.threshold main {
		width: 100%;
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		align-content: end;
		justify-items: center;
		padding: 40px 20px 0;
		background: var(--wash);
		border-bottom: 3px solid var(--ledge);
	}
	@media (min-width: 760px) {
		.band > .wrap {
			padding-block: 42px 38px;
		}
		.front .band > .wrap {
			padding-block: 72px 76px;
		}
		.front .band.pictured > .wrap {
			min-height: 420px;
			align-content: center;
		}
		.front .band h1 {
			font-size: clamp(42px, 5vw, 60px);
		}
		main {
			padding-block: 40px 72px;
		}
	}
	@media (min-width: 980px) {
		.narrow .band > .wrap,
		main.wrap:where(.narrow *) {
			width: min(736px, 100% - 2 * var(--margin));
		}
	}
	@media print {
		.band,
		.front .band {
			background: none;
			color: #000;
		}
	}
</style>
