<!-- A pocket page: a short list for a phone in the hand. Each entry opens over the list, so that the list is not lost. -->
<script lang="ts">
	import type { SeenEntry } from '$lib/server/placing/page-view';
	import Cover from './Cover.svelte';
	let { title, lead, entries }: { title: string; lead: string; entries: readonly SeenEntry[] } = $props();
</script>

{#snippet drawn(icon: string | null)}
	<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawings of the icon package, made by the server from a name -->
	<svg viewBox="0 0 24 24" aria-hidden="true">{@html icon ?? ''}</svg>
{/snippet}

<div class="pocket">
	<h1>{title}</h1>
	{#if lead}<p class="lead">{lead}</p>{/if}
	<ol>
		{#each entries as entry (entry.id)}
			<li>
				{#if entry.document}
					{@const { document } = entry}
					<a class="go" href="/d/{document.slug}/read?from={entry.id}" data-over>
						<span class="sign"
							>{#if entry.icon}{@render drawn(entry.icon)}{:else}<Cover cover={document.cover} width={54} alt="" />{/if}</span
						>
						<span class="says"><strong>{entry.words}</strong><span class="soft">{document.facts}</span></span>
					</a>
					{#if document.maySave}<a
							class="save"
							href="/d/{document.slug}/file?save&from={entry.id}"
							download
							data-sveltekit-reload
							aria-label="Save {entry.words}">Save</a
						>{/if}
				{:else if entry.url}
					<a class="go" href={entry.url} rel="noopener"
						><span class="sign">{@render drawn(entry.icon)}</span><span class="says"
							><strong>{entry.words}</strong><span class="soft">{entry.url.replace(/^https?:\/\/|^mailto:|^tel:/, '').replace(/\/$/, '')}</span></span
						></a
					>
				{:else}
					<a class="go" href={entry.kept?.href}
						><span class="sign">{@render drawn(entry.icon)}</span><span class="says"
							><strong>{entry.words}</strong><span class="soft">{entry.kept?.needsSignIn ? 'For members: sign in to open it' : 'Kept for others'}</span></span
						></a
					>
				{/if}
			</li>
		{:else}<li class="soft none">There is nothing on show here at the moment.</li>{/each}
	</ol>
</div>

<style>
	.pocket {
		max-width: 520px;
		margin: 0 auto;
	}
	h1 {
		font-size: clamp(24px, 6vw, 32px);
	}
	.lead {
		margin-top: 6px;
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
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.save {
		display: grid;
		place-items: center;
		min-width: 64px;
		padding: 0 10px;
		border-left: 1px solid var(--line);
		text-decoration: none;
	}
</style>
