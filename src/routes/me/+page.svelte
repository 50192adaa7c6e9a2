<!-- A reader's own page: what is new, where they left off, what changed, what their groups open, all that they may read, and of what they are told. -->
<script lang="ts">
	import type { Language } from '#core/words/words';
	import DocumentList from '$lib/ui/documents/DocumentList.svelte';
	import { aboutWords } from '$lib/ui/news/about';
	import { dayText } from '$lib/ui/parts/when';
	import { accountWords as account, newsWords as news, words } from '$lib/ui/parts/words';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data, form } = $props();
	const said = $derived(form as { done?: string; trouble?: string } | null);
	const day = (at: Date | string) => dayText(new Date(at).toISOString(), data.site.zone, Date.now(), data.language as Language);
	const { own } = $derived(data);
</script>

{#snippet card(slug: string, title: string, facts: string, href = `/d/${slug}`)}
	<li>
		<a class="stands" {href} tabindex="-1" aria-hidden="true"><img src="/d/{slug}/cover/300.webp" alt="" loading="lazy" /></a>
		<h3><a {href}>{title}</a></h3>
		<p class="soft">{facts}</p>
	</li>
{/snippet}

<svelte:head><title>{data.me?.name}, {data.site.name}</title></svelte:head>
<SiteFrame site={data.site} navigation={data.navigation} current="/me" me={data.me} title={data.me?.name} lead={data.me?.email}>
	<div class="head">
		<form class="seek" role="search" action="/find">
			<input class="field" type="search" name="q" aria-label={news('findMine')} placeholder={news('findMine')} /><button class="btn main"
				>{words('find')}</button
			>
		</form>
		<a href="#news">{news('head')}</a>
		<a href="/me/account">{news('account')}</a>
		<form method="POST" action="/sign-in?/out"><button class="btn">{account('signOut')}</button></form>
	</div>
	{#if said?.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
	{#if said?.done}<p class="say" role="status">{said.done}</p>{/if}
	{#if data.asked && !said?.done}
		<form class="say asked" method="POST" action="/me?/tell">
			{#each ['about', 'document', 'folder', 'every'] as const as name (name)}
				{#if data.asked[name]}<input type="hidden" {name} value={data.asked[name]} />{/if}
			{/each}
			<span>{news('askedBefore')} {aboutWords(data.asked)}, {news(data.asked.every === 'week' ? 'weekly' : 'atOnce')}</span>
			<button class="btn main">{news('tellMe')}</button>
		</form>
	{/if}

	{#if own.receipts.length}
		<section aria-labelledby="receipts">
			<h2 id="receipts">{news('receipts')}</h2>
			<ul class="row">
				{#each own.receipts as it (it.slug)}{@render card(it.slug, it.title, words('pages', { count: it.pages }))}{/each}
			</ul>
		</section>
	{/if}
	{#if own.goOn.length}
		<section aria-labelledby="go-on">
			<h2 id="go-on">{news('goOn')}</h2>
			<ul class="row">
				{#each own.goOn as it (it.slug)}{@render card(
						it.slug,
						it.title,
						`${words('pageN', { page: it.page })} / ${it.pages}`,
						`/d/${it.slug}/read${it.page > 1 ? `#page=${it.page}` : ''}`
					)}{/each}
			</ul>
		</section>
	{/if}
	{#if own.changed.length}
		<section aria-labelledby="changed">
			<h2 id="changed">{news('changed')}</h2>
			<ul class="row">
				{#each own.changed as it (it.slug)}{@render card(it.slug, it.title, news('read', { day: day(it.readAt) }))}{/each}
			</ul>
		</section>
	{/if}
	{#if own.fresh.length}
		<section aria-labelledby="fresh">
			<h2 id="fresh">{news('newForYou')}</h2>
			<ul class="row">
				{#each own.fresh as it (it.edition)}{@render card(it.slug, it.title, `${news(it.isEdition ? 'isEdition' : 'isNew')}, ${day(it.at)}`)}{/each}
			</ul>
		</section>
	{/if}
	{#each own.groups as group (group.name)}
		<section aria-label={news('forGroup', { group: group.name })}>
			<h2>{news('forGroup', { group: group.name })}</h2>
			<ul class="plain">
				{#each group.documents as it (it.slug)}<li>
						<a href="/d/{it.slug}">{it.title}</a> <span class="soft">{words('pages', { count: it.pages })}</span>
					</li>{/each}
			</ul>
		</section>
	{/each}
	<section aria-labelledby="may-read">
		<h2 id="may-read">{account('mayRead')}</h2>
		{#if data.documents.length}<DocumentList documents={data.documents} />{:else}<p class="soft">{account('nothingNow')}</p>{/if}
	</section>

	<section id="news" aria-labelledby="news-head">
		<h2 id="news-head">{news('head')}</h2>
		<p class="soft">{news('lead')}</p>
		{#if data.wishes.length}
			<h3>{news('told')}</h3>
			<ul class="lines">
				{#each data.wishes as wish (wish.id)}
					<li>
						<span class="what">{aboutWords(wish)}<small>{news(wish.every === 'week' ? 'weekly' : 'atOnce')}</small></span>
						<form method="POST" action="?/end"><input type="hidden" name="wish" value={wish.id} /><button class="quiet">{news('end')}</button></form>
					</li>
				{/each}
			</ul>
		{:else}<p>{news('none')}</p>{/if}
		<div class="ways">
			{#if !data.wishes.some((wish) => wish.document === null && wish.folder === null)}
				{#each ['at-once', 'week'] as const as every (every)}
					<form method="POST" action="?/tell">
						<input type="hidden" name="about" value="all" /><input type="hidden" name="every" value={every} />
						<button class="btn">{news('tellMe')}: {news('all')}, {news(every === 'week' ? 'weekly' : 'atOnce')}</button>
					</form>
				{/each}
			{/if}
			{#if data.wishes.length > 1}<form method="POST" action="?/end"><button class="btn">{news('endAll')}</button></form>{/if}
		</div>
		<h3>{news('feedHead')}</h3>
		<p class="soft">{news('feedWords')}</p>
		{#if data.feed}
			<p><input class="field address" readonly value={data.feed} aria-label={news('feedAt')} /></p>
		{/if}
		<div class="ways">
			<form method="POST" action="?/feed"><button class="btn">{news(data.feed ? 'feedAnother' : 'feedMake')}</button></form>
			{#if data.feed}<form method="POST" action="?/feed">
					<input type="hidden" name="end" value="yes" /><button class="btn">{news('feedEnd')}</button>
				</form>{/if}
		</div>
	</section>
</SiteFrame>

<style>
	.head,
	.ways {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 10px 20px;
	}
	.ways {
		gap: 10px;
		margin-top: 10px;
	}
	.asked {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 10px 16px;
		margin: 18px 0;
	}
	.seek {
		display: flex;
		flex: 1 1 320px;
	}
	.seek input {
		flex: 1;
		min-width: 0;
		height: 48px;
	}
	.seek .btn {
		height: 48px;
	}
	section {
		margin-top: 34px;
		scroll-margin-top: 12px;
	}
	h2 {
		font-size: 22px;
	}
	h3 {
		font-size: 17px;
		line-height: 1.25;
		overflow-wrap: anywhere;
	}
	#news h3 {
		margin-top: 18px;
	}
	ul {
		list-style: none;
		padding: 0;
	}
	.row {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(148px, 1fr));
		row-gap: 22px;
		margin-top: 8px;
	}
	.row li {
		display: grid;
		grid-template-rows: subgrid;
		grid-row: span 3;
		row-gap: 0;
	}
	.stands {
		display: flex;
		align-items: flex-end;
		height: 150px;
		border-bottom: 3px solid var(--ledge);
	}
	.stands img {
		max-height: 142px;
		max-width: 110px;
		background: #fff;
		box-shadow: 0 0 0 1px #1b2a2926;
	}
	.row h3 {
		padding: 8px 14px 0 0;
	}
	.row p {
		padding-inline-end: 14px;
	}
	h3 a,
	.plain a {
		color: var(--ink);
	}
	.plain {
		margin-top: 6px;
		border-top: 3px solid var(--ledge);
	}
	.plain li {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 2px 20px;
		padding: 9px 0;
		border-bottom: 1px solid var(--line);
	}
	.lines {
		margin-top: 6px;
		background: var(--sheet);
	}
	.address {
		width: 100%;
		max-width: 736px;
	}
</style>
