<!-- A pocket page: a short list for a phone in the hand. Each entry opens over the list, so that the list is not lost. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { Button } from '$lib/ui/parts/controls';
	import type { SeenEntry } from '$lib/server/placing/page-view';
	import { words } from '$lib/ui/parts/words';
	import Cover from './Cover.svelte';
	let { title, entries, address, qr }: { title: string; entries: readonly SeenEntry[]; address: string; qr: string } = $props();
	/** Where the browser can hand an address on to another program; known once it is at home there. */
	let mayShare = $state(false);
	onMount(() => {
		mayShare = 'share' in navigator;
	});
	// closed without choosing, nothing is to be said
	const share = () => void navigator.share({ title, url: address }).catch(() => {});
</script>

{#snippet drawn(icon: string | null)}
	<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawings of the icon package, made by the server from a name -->
	<svg viewBox="0 0 24 24" aria-hidden="true">{@html icon ?? ''}</svg>
{/snippet}

<div class="pocket">
	<ol>
		{#each entries as entry (entry.id)}
			<li>
				{#if entry.document}
					{@const { document } = entry}
					<!-- opens in place and closes again; with it open the picture of its first page is wide enough to be made out -->
					<details>
						<summary class="go">
							<span class="sign"
								>{#if entry.icon}{@render drawn(entry.icon)}{:else}<Cover cover={document.cover} width={54} alt="" />{/if}</span
							>
							<span class="says"><strong>{entry.words}</strong><span class="soft">{entry.about || document.facts}</span></span>
						</summary>
						<div class="opened">
							<a href="/d/{document.slug}/read?from={entry.id}" data-over tabindex="-1" aria-hidden="true"
								><Cover cover={document.cover} width={220} alt="" lazy /></a
							>
							<div>
								{#if entry.about || document.description}<p>{entry.about || document.description}</p>{/if}
								<p class="soft">{document.facts}</p>
								<p class="do">
									<a class="read" href="/d/{document.slug}/read?from={entry.id}" data-over aria-label="{words('read')} {entry.words}">{words('read')}</a>
									{#if document.maySave}<a
											href="/d/{document.slug}/file?save&from={entry.id}"
											download
											data-sveltekit-reload
											aria-label="{words('save')} {entry.words}">{words('save')}</a
										>{/if}
								</p>
							</div>
						</div>
					</details>
				{:else if entry.url}
					<a class="go" href={entry.url} rel="noopener"
						><span class="sign">{@render drawn(entry.icon)}</span><span class="says"
							><strong>{entry.words}</strong><span class="soft">{entry.about || entry.url.replace(/^https?:\/\/|^mailto:|^tel:/, '').replace(/\/$/, '')}</span
							></span
						></a
					>
				{:else}
					<a class="go" href={entry.kept?.href}
						><span class="sign">{@render drawn(entry.icon)}</span><span class="says"
							><strong>{entry.words}</strong><span class="soft">{words(entry.kept?.needsSignIn ? 'membersSignIn' : 'keptForOthers')}</span></span
						></a
					>
				{/if}
			</li>
		{:else}<li class="soft none">{words('nothingListed')}</li>{/each}
	</ol>
	<details class="on">
		<summary>{words('passOn')}</summary>
		<div>
			<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the server from the page's own address -->
			<span class="qr" role="img" aria-label={words('qrOf')}>{@html qr}</span>
			<p><a href={address}>{address.replace(/^https?:\/\//, '')}</a></p>
			{#if mayShare}<Button onclick={share}>{words('share')}</Button>{/if}
		</div>
	</details>
</div>

<style>
	.pocket {
		max-width: 560px;
		margin: 0 auto;
	}
	ol {
		list-style: none;
		padding: 0;
		margin-top: 14px;
		border-top: 1px solid var(--line);
	}
	li {
		display: flex;
		align-items: stretch;
		border-bottom: 1px solid var(--line);
	}
	.none {
		padding: 18px 0;
	}
	.go {
		flex: 1;
		min-width: 0;
		display: flex;
		gap: 14px;
		align-items: center;
		padding: 10px 4px;
		min-height: 76px;
		color: var(--ink);
		text-decoration: none;
	}
	.sign {
		flex: 0 0 54px;
		display: grid;
		place-items: center;
		color: var(--verdigris);
	}
	.sign svg {
		width: 34px;
		height: 34px;
		fill: none;
		stroke: currentColor;
		stroke-width: 1.6;
		stroke-linecap: round;
		stroke-linejoin: round;
	}
	.sign :global(img) {
		width: 54px;
		height: auto;
		max-height: 72px;
		object-fit: cover;
		object-position: top;
		border: 1px solid var(--line);
		background: #fff;
	}
	.says {
		min-width: 0;
	}
	.says strong {
		display: block;
		font: 600 17px/1.25 var(--title);
	}
	.says .soft {
		display: block;
		font-size: 13.5px;
		overflow-wrap: anywhere;
	}
	details {
		flex: 1;
		min-width: 0;
	}
	summary {
		cursor: pointer;
	}
	summary.go {
		list-style: none;
	}
	summary.go::-webkit-details-marker {
		display: none;
	}
	summary.go::after {
		content: '';
		flex: none;
		width: 10px;
		height: 10px;
		margin: 0 8px 4px auto;
		border: solid var(--ink-soft);
		border-width: 0 2px 2px 0;
		rotate: 45deg;
	}
	details[open] > summary.go::after {
		rotate: 225deg;
		margin-bottom: -4px;
	}
	details[open] > summary.go .sign :global(img) {
		visibility: hidden;
	}
	.opened {
		display: flex;
		flex-wrap: wrap;
		gap: 16px;
		padding: 4px 4px 18px;
	}
	.opened > div {
		flex: 1 1 180px;
		display: grid;
		align-content: start;
		gap: 8px;
	}
	.opened :global(img) {
		width: min(220px, 60vw);
		height: auto;
		border: 1px solid var(--line);
		background: #fff;
	}
	.do {
		display: flex;
		gap: 10px;
		margin-top: 6px;
	}
	.do a {
		min-height: 44px;
		padding: 9px 18px;
		border: 1px solid var(--verdigris);
		border-radius: var(--corner);
		text-decoration: none;
	}
	.do .read {
		background: var(--verdigris);
		color: var(--sheet);
	}
	.on {
		margin-top: 22px;
	}
	.on summary {
		min-height: 44px;
		align-content: center;
		color: var(--ink-soft);
	}
	.on > div {
		display: grid;
		justify-items: start;
		gap: 8px;
	}
	.qr :global(svg) {
		display: block;
		width: 190px;
		height: 190px;
		background: #fff;
	}
</style>
