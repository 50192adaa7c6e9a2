<!-- The foot of every page of the site: what it says of itself, all its pages, what is kept of a visit, and the languages. -->
<script lang="ts">
	import { page } from '$app/state';
	import { directionOf, languageNames, languages, type Language } from '#core/words/words';
	import { words } from '$lib/ui/parts/words';
	import type { NavigationItem } from '$lib/server/placing/views';
	import type { SiteLook } from '$lib/server/site/site';
	let {
		site,
		items,
		own
	}: {
		site: SiteLook;
		items: readonly NavigationItem[];
		/** Language and direction of what the page says, where they are others than the reader's. */
		own: { lang?: string; dir?: 'ltr' | 'rtl' };
	} = $props();
	const language = $derived((page.data.language as Language | undefined) ?? 'en');
	const foot = $derived(site.foot);
	const feed = $derived(items.find((item) => item.layout === 'catalogue'));
	const says = (item: NavigationItem) => (item.language && item.language !== language ? { lang: item.language, dir: directionOf(item.language) } : {});
	/** The same address in another language. */
	function spokenIn(other: Language): string {
		const params = new URLSearchParams(page.url.searchParams);
		params.set('lang', other);
		return `?${params}`;
	}
</script>

<footer class="foot">
	<div class="wrap">
		<div class="columns">
			<div {...own}>
				<h2>{site.name}</h2>
				{#if foot?.address}<p class="written">{foot.address}</p>{/if}
				{#if foot?.contact}<p>
						<a href={foot.contact.includes('@') ? `mailto:${foot.contact}` : foot.contact}>{foot.contact.replace(/^https:\/\//, '')}</a>
					</p>{/if}
				{#if foot?.words}<p class="written own">{foot.words}</p>{/if}
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

<style>
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
	.written {
		white-space: pre-line;
	}
	.written.own {
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
		/* names with letters of many languages: no type is fetched for them */
		font-family: system-ui, sans-serif;
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
	@media print {
		.foot {
			display: none;
		}
	}
</style>
