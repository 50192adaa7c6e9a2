<!-- What stands around a page of the site: its name, its navigation with an arch where one is, find, who is signed in; the band that opens the
     page; what it says of itself below. Nothing of the desk, and all of it without script. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { page } from '$app/state';
	import { inMenu, siteColours } from '#core/site/look';
	import { directionOf, languageNames, languages, type Language } from '#core/words/words';
	import { words } from '$lib/ui/parts/words';
	import type { NavigationItem } from '$lib/server/placing/views';
	import type { SiteLook } from '$lib/server/site/site';
	import Arches from './Arches.svelte';
	import Notice from './Notice.svelte';
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
	const foot = $derived(site.foot);
	const feed = $derived(items.find((item) => item.layout === 'catalogue'));
	const own = $derived(spoken && spoken !== language ? { lang: spoken, dir: directionOf(spoken) } : {});
	const says = (item: NavigationItem) => (item.language && item.language !== language ? { lang: item.language, dir: directionOf(item.language) } : {});
	/** The same address in another language. */
	function spokenIn(other: Language): string {
		const params = new URLSearchParams(page.url.searchParams);
		params.set('lang', other);
		return `?${params}`;
	}
	const signIn = $derived(`/sign-in${['/', '/sign-in'].includes(current) ? '' : `?to=${encodeURIComponent(current)}`}`);
</script>

{#snippet link(item: NavigationItem)}<a href={item.path} aria-current={item.path === current ? 'page' : undefined} {...says(item)}>{item.label || item.title}</a
	>{/snippet}
{#snippet who()}
	{#if me?.staff}{#if desk}<a href={desk.href}>{desk.words}</a>{/if}<a href="/desk/documents">Desk</a>{/if}
	{#if me}<a href="/me" aria-current={current === '/me' ? 'page' : undefined}>{me.name}</a>{:else}<a href={signIn} rel="nofollow">{words('signIn')}</a>{/if}
{/snippet}

<svelte:head
	>{#if site.favicon}<link rel="icon" href="/picture/{site.favicon}.webp?w=64" type="image/webp" />{/if}</svelte:head
>

<div class="site" class:front class:narrow class:threshold style={siteColours(site)}>
	<a class="skip" href="#content">{words('toContent')}</a>
	<header class="top">
		<div class="wrap">
			<a class="name" href="/"
				>{#if site.mark}<img src="/picture/{site.mark}.webp?w=400" alt="" height="48" />{:else}<span class="initial" aria-hidden="true"
						>{[...site.name][0] ?? ''}</span
					>{/if}<span {...own}>{site.name}</span></a
			>
			{#if items.length}<nav class="nav" aria-label={words('siteNavigation')}>
					{#each items.slice(0, inMenu) as item (item.path)}{@render link(item)}{/each}
				</nav>{/if}
			<form class="find" action="/find" role="search">
				<label
					><span class="sr">{words('findSite')}</span><input
						type="search"
						name="q"
						placeholder={words('findSite')}
						value={page.url.pathname === '/find' ? (page.url.searchParams.get('q') ?? '') : ''}
					/></label
				><button aria-label={words('find')}
					><svg viewBox="0 0 20 20" aria-hidden="true"><circle cx="8.5" cy="8.5" r="5.5" /><path d="m12.8 12.8 4.7 4.7" /></svg></button
				>
			</form>
			<span class="who">{@render who()}</span>
			<details class="menu">
				<summary>{words('menu')}</summary>
				<nav aria-label={words('menu')}>
					{#each items as item (item.path)}{@render link(item)}{/each}{@render who()}
				</nav>
			</details>
		</div>
	</header>
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
	<footer class="foot">
		<div class="wrap">
			<div class="columns">
				<div {...own}>
					<h2>{site.name}</h2>
					{#if foot?.address}<p class="lines">{foot.address}</p>{/if}
					{#if foot?.contact}<p>
							<a href={foot.contact.includes('@') ? `mailto:${foot.contact}` : foot.contact}>{foot.contact.replace(/^https:\/\//, '')}</a>
						</p>{/if}
					{#if foot?.words}<p class="lines own">{foot.words}</p>{/if}
				</div>
				{#if items.length}<nav aria-labelledby="foot-pages">
						<h3 id="foot-pages">{words('sitePages')}</h3>
						<ul class:two={items.length > 6}>
							{#each items as item (item.path)}<li><a href={item.path} {...says(item)}>{item.title}</a></li>{/each}
						</ul>
					</nav>{/if}
				<div>
					<h3>{words('siteSays')}</h3>
					<ul>
						<li><a href="/find">{words('allDocuments')}</a></li>
						{#if feed}<li><a href="{feed.path === '/' ? '' : feed.path}/feed.atom">{words('followFeed')}</a></li>{/if}
						<li><a href="/privacy">{words('privacy')}</a></li>
					</ul>
				</div>
			</div>
			<nav class="languages" aria-label={words('languageChoice')}>
				{#each languages as one (one)}<a
						href={spokenIn(one)}
						lang={one}
						dir={directionOf(one)}
						rel="nofollow"
						data-sveltekit-reload
						aria-current={one === language ? 'true' : undefined}>{languageNames[one]}</a
					>{/each}
			</nav>
		</div>
	</footer>
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
	.sr {
		position: absolute;
		width: 1px;
		height: 1px;
		overflow: hidden;
		clip-path: inset(50%);
		white-space: nowrap;
	}
	/* the head */
	.top .wrap {
		display: flex;
		align-items: center;
		gap: 10px 22px;
		min-height: 64px;
	}
	.name {
		display: flex;
		align-items: center;
		gap: 12px;
		min-width: 0;
		padding: 10px 0;
		font: 600 17px/1.16 var(--title);
		color: var(--ink);
		text-decoration: none;
	}
	.name > span:last-child {
		max-width: 240px;
		overflow-wrap: anywhere;
	}
	.name img {
		width: auto;
		height: 40px;
		max-width: 200px;
		object-fit: contain;
	}
	.initial {
		flex: none;
		display: grid;
		place-items: end center;
		width: 36px;
		height: 42px;
		padding-bottom: 7px;
		border-radius: 18px 18px 0 0;
		background: var(--verdigris);
		color: var(--on-verdigris);
		font: 600 19px/1 var(--title);
	}
	.nav {
		display: none;
	}
	.top a:not(.name) {
		color: var(--ink);
		text-decoration: none;
	}
	.top a:not(.name):hover {
		text-decoration: underline;
	}
	.find {
		display: flex;
		position: relative;
		margin-inline-start: auto;
	}
	.find label {
		display: none;
	}
	.find button {
		display: grid;
		place-items: center;
		width: 44px;
		height: 44px;
		background: none;
		border: 0;
		color: inherit;
		cursor: pointer;
	}
	.find svg {
		width: 20px;
		height: 20px;
		fill: none;
		stroke: currentColor;
		stroke-width: 2;
	}
	.who {
		display: none;
		gap: 0 18px;
		white-space: nowrap;
	}
	.menu {
		position: relative;
	}
	.menu summary {
		display: flex;
		align-items: center;
		min-height: 44px;
		padding: 0 4px;
		cursor: pointer;
		font-weight: 600;
		list-style: none;
	}
	.menu summary::-webkit-details-marker {
		display: none;
	}
	.menu summary::after {
		content: '';
		width: 9px;
		height: 9px;
		margin-inline-start: 9px;
		border: solid currentColor;
		border-width: 0 2px 2px 0;
		rotate: 45deg;
		translate: 0 -3px;
	}
	.menu[open] summary::after {
		rotate: 225deg;
		translate: 0 2px;
	}
	.menu nav {
		position: absolute;
		inset-inline-end: 0;
		top: 100%;
		z-index: 20;
		width: min(300px, calc(100vw - 40px));
		display: grid;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-bottom: 3px solid var(--ledge);
	}
	.menu a {
		display: flex;
		align-items: center;
		min-height: 46px;
		padding: 4px 16px;
	}
	.menu a + a {
		border-top: 1px solid var(--line);
	}
	.menu a[aria-current] {
		background: var(--wash);
		font-weight: 600;
	}
	/* the band */
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
	.lead {
		max-width: 640px;
		margin-top: 12px;
		font-size: clamp(17px, 2vw, 20px);
		line-height: 1.5;
		color: var(--soft-on-wash);
		white-space: pre-line;
	}
	.front .band {
		background: var(--band);
		color: var(--on-band);
	}
	.front .lead {
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
		align-content: end;
		justify-items: center;
		padding: 40px 20px 0;
		background: var(--wash);
		border-bottom: 3px solid var(--ledge);
	}
	/* the foot */
	.foot {
		background: var(--band);
		color: var(--on-band);
		font-size: 16px;
	}
	.foot a {
		display: inline-block;
		padding: 3px 0;
		color: inherit;
	}
	.columns {
		display: grid;
		gap: 26px;
		padding-block: 34px 26px;
	}
	.foot h2 {
		font-size: 19px;
		margin-bottom: 6px;
	}
	.foot h3 {
		font: 600 15px/1.4 var(--body);
		color: var(--soft-on-band);
		margin-bottom: 4px;
	}
	.lines {
		white-space: pre-line;
	}
	.lines.own {
		margin-top: 8px;
		max-width: 34em;
		color: var(--soft-on-band);
	}
	.languages {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 20px;
		padding-block: 12px 22px;
		border-top: 1px solid color-mix(in oklab, var(--band), var(--on-band) 30%);
	}
	.languages a {
		font-size: 15px;
		text-decoration: none;
		color: var(--soft-on-band);
	}
	.languages a:hover {
		text-decoration: underline;
	}
	.languages a[aria-current] {
		color: var(--on-band);
		font-weight: 600;
		box-shadow: 0 2px 0 var(--act);
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
		.columns {
			grid-template-columns: 5fr 4fr 3fr;
			gap: 32px;
			padding-block: 48px 36px;
		}
		.foot .two {
			columns: 2;
			column-gap: 32px;
		}
	}
	@media (min-width: 980px) {
		.top .wrap {
			align-items: flex-end;
			min-height: 76px;
		}
		.name {
			font-size: 19px;
			padding: 13px 0 12px;
		}
		.name img {
			height: 48px;
		}
		.initial {
			width: 41px;
			height: 48px;
		}
		.menu,
		.find button {
			display: none;
		}
		.nav {
			flex: 1;
			display: flex;
			justify-content: flex-end;
			flex-wrap: wrap;
		}
		.nav a {
			height: 54px;
			padding: 0 12px;
			line-height: 49px;
			white-space: nowrap;
		}
		.nav a[aria-current] {
			padding: 0 20px;
			border-radius: 27px 27px 0 0;
			background: var(--page-band);
			font-weight: 600;
		}
		.front .nav a[aria-current] {
			color: var(--on-band);
		}
		.who {
			display: flex;
			padding-bottom: 15px;
		}
		.find {
			margin: 0 0 9px;
		}
		.nav + .find {
			margin-inline-start: 0;
		}
		.find label {
			display: block;
		}
		.find input {
			width: 168px;
			height: 40px;
			padding: 0 10px;
			border: 1px solid var(--edge);
			border-radius: var(--corner);
			background: var(--sheet);
			font: 400 15px var(--body);
		}
		.narrow .band > .wrap,
		main.wrap:where(.narrow *) {
			width: min(736px, 100% - 2 * var(--margin));
		}
	}
	@media print {
		.top,
		.foot {
			display: none;
		}
		.band,
		.front .band {
			background: none;
			color: #000;
		}
	}
</style>
