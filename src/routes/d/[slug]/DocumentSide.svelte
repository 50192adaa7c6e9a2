<!-- Beside a document's particulars: what is in it, where words stand in it, what is attached, and how to pass it on. -->
<script lang="ts">
	import type { PageData } from './$types';
	import { newsWords, words } from '$lib/ui/parts/words';
	import { aboutWords } from '$lib/ui/news/about';
	let { data, read, written }: { data: PageData; read: string; written: { lang?: string; dir?: 'ltr' | 'rtl' } } = $props();
	const document = $derived(data.document);
</script>

<div class="side">
	{#if data.inside.outline.length}
		<section aria-labelledby="contents">
			<h2 id="contents">{words('contents')}</h2>
			<ol>
				{#each data.inside.outline as line, i (i)}<li class:sub={line.depth > 0} {...written}>
						<a href="{read}#page={line.page}"><span>{line.title}</span><b>{line.page}</b></a>
					</li>{/each}
			</ol>
		</section>
	{/if}
	{#if data.inside.text !== 'no' && document.shown}
		<section aria-labelledby="inside">
			<h2 id="inside">{words('findInside')}</h2>
			<form class="within" role="search" action="#inside">
				{#if data.from}<input type="hidden" name="from" value={data.from} />{/if}
				<input class="field" type="search" name="q" value={data.q} aria-labelledby="inside" /><button class="btn">{words('find')}</button>
			</form>
			{#if data.q}<p class="soft" role="status">{data.hits.length ? '' : words('nothingWith', { words: data.q })}</p>{/if}
			<ol class="hits">
				{#each data.hits as hit (hit.page)}<li>
						<span {...written}
							>{#each hit.stretches as stretch, i (i)}{#if stretch.marked}<mark>{stretch.text}</mark>{:else}{stretch.text}{/if}{/each}</span
						>
						<a href="{read}#page={hit.page}&search={encodeURIComponent(data.q)}">{words('pageN', { page: hit.page })}</a>
					</li>{/each}
			</ol>
		</section>
	{/if}
	{#if data.inside.attachments.length}
		<section aria-labelledby="attached">
			<h2 id="attached">{words('attached')}</h2>
			<ul>
				{#each data.inside.attachments as name, i (i)}<li>
						{#if data.hasFile}<a href="/d/{document.slug}/attachment/{i + 1}" download>{name}</a>{:else}{name}{/if}
					</li>{/each}
			</ul>
		</section>
	{/if}
	{#if data.me}
		<section id="news" aria-labelledby="be-told">
			<h2 id="be-told">{newsWords('head')}</h2>
			{#each data.wishes as wish (wish.id)}
				<form class="told" method="POST" action="/me?/end">
					<input type="hidden" name="wish" value={wish.id} /><input type="hidden" name="to" value="/d/{document.slug}#news" />
					<span>{aboutWords(wish)}, {newsWords(wish.every === 'week' ? 'weekly' : 'atOnce')}</span>
					<button class="quiet">{newsWords('end')}</button>
				</form>
			{/each}
			<form class="tell" method="POST" action="/me?/tell">
				<input type="hidden" name="document" value={document.slug} /><input type="hidden" name="folder" value={document.folder} />
				<input type="hidden" name="to" value="/d/{document.slug}#news" />
				<select class="field" name="about" aria-label={newsWords('about')}>
					<option value="document">{newsWords('thisOne')}</option>
					{#if document.folder}<option value="folder">{newsWords('folder', { folder: document.folder })}</option>{/if}
					<option value="all">{newsWords('all')}</option>
				</select>
				<select class="field" name="every" aria-label={newsWords('how')}>
					<option value="at-once">{newsWords('atOnce')}</option>
					<option value="week">{newsWords('weekly')}</option>
				</select>
				<button class="btn">{newsWords('tellMe')}</button>
			</form>
		</section>
	{/if}
	<section aria-labelledby="pass-on">
		<h2 id="pass-on">{words('passOn')}</h2>
		<div class="share">
			<div>
				<code>{data.address.replace(/^https?:\/\//, '')}</code>
				<p>
					<button class="btn" type="button" data-copy={data.address} data-copied={words('copied')} hidden>{words('copyLink')}</button>
					<button class="btn" type="button" data-share={data.address} data-title={document.title} hidden>{words('share')}</button>
				</p>
			</div>
			<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the server from the document's own address -->
			<span class="qr" role="img" aria-label={words('qrOf')}>{@html data.qr}</span>
		</div>
	</section>
</div>

<style>
	.within .btn,
	.share .btn {
		min-height: 48px;
		padding: 8px 22px;
		font-size: 17px;
		font-weight: 600;
	}
	h2 {
		font-size: 19px;
	}
	.tell {
		display: grid;
		gap: 8px;
		margin-top: 10px;
	}
	.tell .btn {
		justify-self: start;
	}
	.told {
		display: flex;
		gap: 12px;
		justify-content: space-between;
		padding: 8px 0;
		border-bottom: 1px solid var(--line);
	}
	.side h2 {
		font-size: 19px;
		padding-bottom: 8px;
		margin-bottom: 0;
		border-bottom: 3px solid var(--ledge);
	}
	.side section + section {
		margin-top: 34px;
	}
	.side li {
		padding: 9px 0;
		border-bottom: 1px solid var(--line);
		line-height: 1.4;
	}
	.side .sub {
		padding-inline-start: 18px;
	}
	.side ol a {
		display: flex;
		gap: 12px;
		color: var(--ink);
		text-decoration: none;
	}
	.side ol a:hover span {
		text-decoration: underline;
	}
	.side b {
		margin-inline-start: auto;
		font: 600 16px/1.35 var(--title);
		color: var(--ink-soft);
	}
	.side .hits li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 12px;
	}
	.side .hits a {
		text-decoration: underline;
		white-space: nowrap;
	}
	.within {
		display: flex;
		gap: 8px;
		margin-top: 12px;
	}
	.within .field {
		flex: 1;
		min-width: 0;
		height: 48px;
		font-size: 16px;
	}
	.share {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 16px;
		padding-top: 14px;
	}
	.share > div {
		flex: 1 1 0;
		min-width: min(150px, 100%);
	}
	.share code {
		font: 400 15px/1.4 var(--body);
		overflow-wrap: anywhere;
	}
	.share p {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		margin-top: 10px;
	}
	.qr :global(svg) {
		display: block;
		width: 108px;
		height: 108px;
		background: #fff;
	}
</style>
