<!-- The head of every page of the site: its name, its navigation with an arch where one is, find, who is signed in; on a phone a menu. -->
<script lang="ts">
	import { page } from '$app/state';
	import { inMenu } from '#core/site/look';
	import { directionOf, type Language } from '#core/words/words';
	import { words } from '$lib/ui/parts/words';
	import type { NavigationItem } from '$lib/server/placing/views';
	import type { SiteLook } from '$lib/server/site/site';
	let {
		site,
		items,
		current,
		me,
		desk,
		own,
		front
	}: {
		site: SiteLook;
		items: readonly NavigationItem[];
		current: string;
		me: { name: string; staff: boolean } | null;
		desk: { readonly href: string; readonly words: string } | undefined;
		/** Language and direction of what the page says, where they are others than the reader's. */
		own: { lang?: string; dir?: 'ltr' | 'rtl' };
		front: boolean;
	} = $props();
	const language = $derived((page.data.language as Language | undefined) ?? 'en');
	const says = (item: NavigationItem) => (item.language && item.language !== language ? { lang: item.language, dir: directionOf(item.language) } : {});
	// one line holds so many letters, each entry counted with what stands between it and the next; beyond that find is a press, as on a phone,
	// and what still does not fit waits in the menu
	const [withField, without] = [68, 80];
	const lettersOf = (said: readonly string[]) => said.reduce((sum, one) => sum + one.length + 2, 0);
	const first = $derived(items.slice(0, inMenu));
	const beside = $derived(lettersOf([me?.name ?? words('signIn'), ...(me?.staff ? ['Desk', desk?.words ?? '', words('menu')] : [])]));
	const labels = $derived(first.map((item) => item.label || item.title));
	const compact = $derived(lettersOf(labels) + beside > withField);
	const shown = $derived(first.filter((_, i) => lettersOf(labels.slice(0, i + 1)) + beside <= without));
	const signIn = $derived(`/sign-in${['/', '/sign-in'].includes(current) ? '' : `?to=${encodeURIComponent(current)}`}`);
</script>

{#snippet link(item: NavigationItem)}<a href={item.path} aria-current={item.path === current ? 'page' : undefined} {...says(item)}>{item.label || item.title}</a
	>{/snippet}
{#snippet who()}
	{#if me?.staff}{#if desk}<a href={desk.href}>{desk.words}</a>{/if}<a href="/desk/documents">Desk</a>{/if}
	{#if me}<a href="/me" aria-current={current === '/me' ? 'page' : undefined}>{me.name}</a>{:else}<a href={signIn} rel="nofollow">{words('signIn')}</a>{/if}
{/snippet}

<header class="top" class:front class:compact class:more={shown.length < first.length}>
	<div class="wrap">
		<a class="name" href="/"
			>{#if site.mark}<img src="/picture/{site.mark}.webp?w=400" alt="" height="48" />{:else}<span class="initial" aria-hidden="true"
					>{[...site.name][0] ?? ''}</span
				>{/if}<span {...own}>{site.name}</span></a
		>
		{#if items.length}<nav class="nav" aria-label={words('siteNavigation')}>
				{#each shown as item (item.path)}{@render link(item)}{/each}
			</nav>{/if}
		<form class="find" action="/find" role="search">
			<label
				><span class="sr-only">{words('findSite')}</span><input
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

<style>
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
		.front.top .nav a[aria-current] {
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
	}
	@media (min-width: 980px) {
		.top.more .menu {
			display: block;
			padding-bottom: 5px;
		}
		.compact .find label {
			display: none;
		}
		.compact .find button {
			display: grid;
		}
		.compact .nav a:not([aria-current]) {
			padding: 0 10px;
		}
	}
	@media print {
		.top {
			display: none;
		}
	}
</style>
