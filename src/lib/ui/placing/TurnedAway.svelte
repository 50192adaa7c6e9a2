<!-- Turned away, nothing here, or something went wrong: says which, and what to do. -->
<script lang="ts">
	import '../site.css';
	import { page } from '$app/state';
	import { untrack } from 'svelte';
	import { askForPass } from '$lib/ui/placing/pass';
	import type { SiteLook } from '$lib/server/site/site';
	import { words } from '$lib/ui/parts/words';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import Archway from '$lib/ui/placing/Archway.svelte';
	const site = $derived((page.data.site as SiteLook | undefined) ?? { name: 'Ianua' });
	const me = $derived((page.data.me as { name: string; staff: boolean } | null | undefined) ?? null);
	const refused = $derived(page.status === 401 || page.status === 403);
	const heading = $derived(page.error?.heading ?? words(page.status === 404 ? 'nothingHere' : refused ? 'notForYou' : 'wentWrong'));
	/** In a frame on another website: nobody can sign in there, and its links would lead the frame away. */
	const framed = $derived(page.url.pathname.startsWith('/embed/'));
	const own = $derived(page.url.pathname.replace(/^\/embed\//, '/d/'));
	// whoever is signed in on the website around it may have a pass
	$effect(() => {
		const path = page.url.pathname;
		if (framed && refused) return untrack(() => askForPass(path));
	});
	const door = $derived(refused ? 'keyed' : page.status === 404 ? 'shut' : 'ajar');
	const to = $derived(encodeURIComponent(page.url.pathname.replace(/\/turned-away$/, '') + page.url.search));
</script>

<svelte:head><title>{heading}, {site.name}</title><meta name="robots" content="noindex" /></svelte:head>
{#if framed}
	<main class="framed" data-went-wrong data-testid="turned-away">
		<DoorMark position={door} height={56} />
		<h1>{page.error?.announced?.title ?? heading}</h1>
		<p class="words">{page.error?.message}</p>
		{#if refused}<a class="btn main" href={own} target="_blank" rel="noopener">{words('onItsSite')}</a>{/if}
	</main>
{:else}
	<Archway heading={page.error?.announced?.title ?? heading} {door}>
		<div data-went-wrong data-testid="turned-away">
			{#if page.error?.announced}
				{#if page.error.announced.description}<p>{page.error.announced.description}</p>{/if}
				<p class="who">{page.error.announced.who}</p>
				<h2>{heading}</h2>
			{/if}
			<p class="words">{page.error?.message}</p>
			{#if page.error?.reason}<p class="soft">{page.error.reason}</p>{/if}
			<div class="ways">
				{#if page.error?.button}<a class="btn" class:main={!page.error.offersSignIn} href={page.error.button.target}>{page.error.button.label}</a>{/if}
				{#if page.error?.offersSignIn && !me}<a class="btn main" href="/sign-in?to={to}">{words('signIn')}</a>
				{:else if !page.error?.button}<a class="btn" href="/">{words('toFront')}</a>{/if}
				{#if page.error?.knockAt}<a class="btn" href={page.error.knockAt}>{words('knock')}</a>{/if}
			</div>
			<form action="/find" role="search">
				<label>{words('findSite')} <input class="field" type="search" name="q" /></label>
				<button class="btn">{words('find')}</button>
			</form>
			{#if page.error?.requestId}<p class="soft small">{words('ifAgain', { number: page.error.requestId })}</p>{/if}
		</div>
	</Archway>
{/if}

<style>
	.framed {
		display: grid;
		justify-items: center;
		align-content: center;
		gap: 12px;
		min-height: 100dvh;
		padding: 20px;
		text-align: center;
	}
	.framed h1 {
		font-size: 22px;
		overflow-wrap: anywhere;
	}
	.who {
		color: var(--ink-soft);
	}
	h2 {
		margin-top: 18px;
		font-size: 21px;
	}
	.words {
		white-space: pre-line;
	}
	.ways {
		display: flex;
		flex-wrap: wrap;
		gap: 10px;
		justify-content: center;
		margin-top: 20px;
	}
	form {
		padding-top: 18px;
	}
	.small {
		font-size: 13px;
	}
</style>
