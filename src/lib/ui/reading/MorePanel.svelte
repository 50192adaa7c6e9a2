<!-- Everything else of the reading room: what has no room on a narrow sill, turning, sharing, attachments, contents, colours, language and keys. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { papers } from '#core/reading/paper';
	import { languageNames, languages } from '#core/words/words';
	import type { RoomGiven } from './given';
	import Receipt from './Receipt.svelte';
	import type { Room } from './room.svelte';

	let { room, given, full, fullScreen, choices }: { room: Room; given: RoomGiven; full: boolean; fullScreen: () => void; choices: Snippet<['ways' | 'fit']> } =
		$props();
	const paperNames = { day: 'paperDay', straw: 'paperStraw', night: 'paperNight' } as const;
	const doc = $derived(given.document);
	let copied = $state(false);
	/** By what the system offers for it, where it offers something; else the address is copied. */
	async function share() {
		if ('share' in navigator) {
			const why = await navigator.share({ title: doc.title, url: room.share }).then(
				() => null,
				(error: unknown) => (error as DOMException).name
			);
			// who closes it again has shared nothing, and meant that; in a frame it may be refused
			if (why === null || why === 'AbortError') return;
		}
		await navigator.clipboard?.writeText(room.share).then(
			() => (copied = true),
			() => undefined
		);
		setTimeout(() => (copied = false), 4000);
	}

	const keyList = [
		['→ ←', 'keyTurn'],
		['Home End', 'keyEnds'],
		['g', 'keyPage'],
		['/', 'keyFind'],
		['n v', 'keyFound'],
		['+ − 0', 'keyZoom'],
		['w', 'keyWays'],
		['r', 'keyRotate'],
		['s', 'keyScreen'],
		['b', 'keyBack'],
		['?', 'keyKeys']
	] as const;

	const spoken = (language: string) => {
		const address = new URL(location.href);
		address.searchParams.set('lang', language);
		return address.href;
	};
</script>

<div class="more">
	<div class="narrow">
		{#if room.has('find')}<button onclick={() => (room.panel = 'find')}>{room.say('find')}</button>{/if}
		{#if room.has('print') && given.mayPrint}<button onclick={() => (room.panel = 'print')}>{room.say('print')}</button>{/if}
		{#if room.has('save') && given.maySave}<a href={room.saveAddress} download>{room.say('save')}</a>{/if}
		{#if room.has('ways')}<h2>{room.say('wayOfReading')}</h2>
			{@render choices('ways')}{/if}
		{#if room.has('fit')}<h2>{room.say('fit')}</h2>
			{@render choices('fit')}{/if}
	</div>
	{#if given.receipt}<div class="receipt"><Receipt slug={doc.slug} receipt={given.receipt} bind:given={room.receipt} /></div>{/if}
	<a href="/d/{doc.slug}/text?{room.suffix.slice(1)}{room.suffix ? '&' : ''}page={room.page}#p{room.page}">{room.say('asText')}</a>
	{#if room.has('turn')}<button onclick={() => room.turn(-1)}>{room.say('turnLeft')}</button><button onclick={() => room.turn(1)}
			>{room.say('turnRight')}</button
		>{/if}
	{#if room.has('full-screen')}<button onclick={fullScreen}>{room.say(full ? 'leaveFullScreen' : 'fullScreen')}</button>{/if}
	{#if room.has('share')}<button onclick={share}
			>{room.say('share')}{#if copied}<em role="status">{room.say('copied')}</em>{/if}</button
		>{/if}
	{#if doc.attachments.length}
		<h2>{room.say('attachments')}</h2>
		{#each doc.attachments as name, i (i)}{#if given.hasFile}<a href="/d/{doc.slug}/attachment/{i + 1}?{room.suffix.slice(1)}" download={name}>{name}</a
				>{:else}<span class="item">{name}</span>{/if}{/each}
	{/if}
	{#if doc.outline.length}
		<h2>{room.say('contents')}</h2>
		<ol class="chapters" dir="auto">
			{#each doc.outline as line, i (i)}<li style="padding-inline-start:{Math.min(4, line.depth) * 14}px">
					{#if line.page}{@const page = line.page}<button onclick={() => room.go(page)}><span>{line.title}</span><small>{line.page}</small></button>{:else}<span
							class="item">{line.title}</span
						>{/if}
				</li>{/each}
		</ol>
	{/if}
	<h2>{room.say('colours')}</h2>
	<div class="pills">
		{#each [['system', 'asSystem'], ['light', 'light'], ['dark', 'dark']] as const as [theme, word] (theme)}<button
				aria-pressed={room.theme === theme}
				onclick={() => room.setTheme(theme)}>{room.say(word)}</button
			>{/each}
	</div>
	<h2>{room.say('paper')}</h2>
	<div class="pills">
		{#each papers as paper (paper)}<button aria-pressed={room.paper === paper} onclick={() => room.setPaper(paper)}>{room.say(paperNames[paper])}</button
			>{/each}
	</div>
	{#if given.settings.foreEdge && doc.outline.length}<label class="choice"
			><input type="checkbox" checked={room.chapters} onchange={(e) => room.setChapters(e.currentTarget.checked)} />{room.say('chapterNames')}</label
		>{/if}
	<h2>{room.say('language')}</h2>
	<div class="pills">
		{#each languages as language (language)}<a
				href={room.started ? spoken(language) : `?lang=${language}`}
				lang={language}
				hreflang={language}
				data-sveltekit-reload
				aria-current={language === given.language ? 'true' : undefined}>{languageNames[language]}</a
			>{/each}
	</div>
	<details id="keys">
		<summary>{room.say('keys')}</summary>
		<dl>
			{#each keyList as [key, word] (key)}<dt><kbd>{key}</kbd></dt>
				<dd>{room.say(word)}</dd>{/each}
		</dl>
	</details>
</div>

<style>
	.more > button,
	.more > a,
	.narrow > button,
	.narrow > a {
		width: 100%;
	}
	h2 {
		font: 600 0.95em var(--title);
		margin: 12px 0 4px;
	}
	.chapters {
		list-style: none;
		margin: 0;
		padding: 0;
		max-height: 40vh;
		overflow: auto;
	}
	.chapters button {
		width: 100%;
		justify-content: space-between;
	}
	.chapters small,
	em {
		color: var(--ink-soft);
		margin-inline-start: auto;
		font-style: normal;
	}
	.receipt {
		padding: 6px 0 10px;
	}
	.choice {
		display: flex;
		align-items: center;
		gap: 8px;
		min-height: 38px;
		margin-top: 8px;
	}
	details {
		margin-top: 12px;
	}
	summary {
		cursor: pointer;
		min-height: 2em;
	}
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 4px 12px;
		margin: 4px 0 0;
		font-size: 0.92em;
	}
	dd {
		margin: 0;
	}
	kbd {
		font: 600 0.95em var(--body);
		direction: ltr;
		unicode-bidi: isolate;
	}
	.narrow {
		display: none;
	}
	@container (max-width: 860px) {
		.narrow {
			display: block;
		}
	}
</style>
