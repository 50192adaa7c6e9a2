<!-- What stands around a page of the site: its name, its navigation, who is signed in. Nothing of the desk. -->
<script lang="ts">
	import { words } from '$lib/ui/parts/words';
	import type { Snippet } from 'svelte';
	import { nearestPassing, siteGround } from '#core/site/colour';
	import type { NavigationItem } from '$lib/server/placing/views';
	import type { SiteLook } from '$lib/server/site/site';
	let {
		site,
		navigation = [],
		current = '',
		me = null,
		desk,
		children
	}: {
		site: SiteLook;
		navigation?: readonly NavigationItem[];
		current?: string;
		me?: { name: string; staff: boolean } | null;
		/** Where the desk has what is shown, for staff. */
		desk?: { readonly href: string; readonly words: string } | undefined;
		children: Snippet;
	} = $props();
	// by night the site's colour is the nearest to it that can be read on the dark ground
	const night = '#1b2524';
	const style = $derived(
		[
			site.colour ? `--verdigris:light-dark(${site.colour},${nearestPassing(site.colour, [night])});--on-verdigris:light-dark(#ffffff,${night})` : '',
			site.background && site.background !== siteGround ? `--sheet:light-dark(${site.background},${night})` : ''
		]
			.filter(Boolean)
			.join(';') || undefined
	);
</script>

<svelte:head
	>{#if site.favicon}<link rel="icon" href="/picture/{site.favicon}.webp?w=64" type="image/webp" />{/if}</svelte:head
>

<div class="site" {style}>
	<a class="skip" href="#content">{words('toContent')}</a>
	<header>
		<a class="name" href="/"
			>{#if site.mark}<img src="/picture/{site.mark}.webp?w=400" alt="" height="34" />{/if}{site.name}</a
		>
		<nav aria-label={words('siteNavigation')}>
			{#each navigation as item (item.path)}<a href={item.path} aria-current={item.path === current ? 'page' : undefined}>{item.title}</a>{/each}
		</nav>
		<span class="who">
			{#if me?.staff}{#if desk}<a href={desk.href}>{desk.words}</a>{/if}<a href="/desk/documents">Desk</a>{/if}
			{#if me}<a href="/me">{me.name}</a>{:else}<a href="/sign-in{current && current !== '/' ? `?to=${encodeURIComponent(current)}` : ''}" rel="nofollow"
					>{words('signIn')}</a
				>{/if}
		</span>
	</header>
	<main id="content">{@render children()}</main>
</div>

<style>
	.site {
		min-height: 100dvh;
		background: var(--sheet);
	}
	.skip {
		position: absolute;
		/* above the page, not beside it: beside it would widen a page that is written from right to left */
		top: -100px;
		inset-inline-start: 8px;
	}
	.skip:focus {
		top: 8px;
		background: var(--sheet);
		padding: 6px 10px;
		z-index: 9;
	}
	header {
		display: flex;
		align-items: baseline;
		gap: 6px 26px;
		margin: 0 max(24px, calc((100% - 992px) / 2));
		padding: 22px 0 14px;
		border-bottom: 1px solid var(--line);
	}
	.name {
		flex: none;
		max-width: 100%;
		font: 600 19px var(--title);
		color: var(--ink);
		text-decoration: none;
		display: inline-flex;
		align-items: center;
		gap: 10px;
	}
	.name img {
		height: 34px;
		width: auto;
	}
	nav {
		flex: 1 1 300px;
		display: flex;
		flex-wrap: wrap;
		gap: 4px 20px;
	}
	nav a,
	.who a {
		text-decoration: none;
		font-size: 15px;
		padding: 4px 0;
	}
	nav a[aria-current] {
		border-bottom: 2px solid var(--brass-bright);
		color: var(--ink);
	}
	.who {
		margin-left: auto;
		display: flex;
		flex-wrap: wrap;
		gap: 0 18px;
		white-space: nowrap;
	}
	main {
		margin: 0 max(24px, calc((100% - 992px) / 2));
		padding: 30px 0 60px;
		display: flow-root;
	}
	@media (max-width: 760px) {
		header {
			flex-wrap: wrap;
			gap: 2px 16px;
		}
		nav {
			order: 3;
			flex-basis: 100%;
		}
	}
	@media (max-width: 600px) {
		header {
			margin: 0 16px;
			padding: 14px 0 10px;
		}
		.name {
			font-size: 17px;
		}
		main {
			margin: 0 16px;
			padding: 22px 0 48px;
		}
	}
</style>
