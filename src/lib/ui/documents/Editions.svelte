<!-- The editions of a document: put in a new one, see what changed, go back. -->
<script lang="ts">
	import { Button, Fileupload } from '$lib/ui/parts/controls';
	import { counted } from '#core/text/list';
	import { sizeWords } from '#core/documents/size';
	import { conditionWords } from '#core/intake/condition';
	import type { EditionView } from '$lib/server/documents/view';
	import { bringIn } from '$lib/ui/intake/tray.svelte';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { dayText } from '$lib/ui/parts/when';

	let { slug, editions, zone, maxUpload }: { slug: string; editions: readonly EditionView[]; zone: string; maxUpload: number } = $props();
	let input = $state<HTMLInputElement>();
	// a document always has one in force
	const inForce = $derived(editions.find((e) => e.inForce)!);
	const originWords = { upload: '', web: 'from the web', cleaned: 'without active content', unlocked: 'unlocked' } as const;

	const putInForce = (edition: EditionView) =>
		act(
			`Edition ${edition.number} is in force.`,
			() => call('patch /documents/{slug}', { path: { slug }, body: { edition: edition.number } }),
			({ before }) => call('patch /documents/{slug}', { path: { slug }, body: before })
		);
</script>

<div class="head">
	<span>{counted(editions.length, 'edition', 'editions')}</span>
	<Button kind="quiet" onclick={() => input?.click()}>Put in a new edition</Button>
	<Fileupload
		bind:elementRef={input}
		accept="application/pdf,.pdf"
		unseen
		tabindex={-1}
		aria-label="Choose the PDF of the new edition"
		onchange={(e) => {
			bringIn(e.currentTarget.files ?? [], maxUpload, slug);
			e.currentTarget.value = '';
		}}
	/>
</div>
{#if editions.length > 1}
	<ol class="lines">
		{#each editions as edition, i (edition.number)}
			{@const older = editions[i + 1]}
			<li class:on={edition.inForce}>
				<b>{edition.number}</b>
				<span class="what"
					>{dayText(edition.at, zone)}, {edition.pages ? `${counted(edition.pages, 'page', 'pages')}, ` : ''}{sizeWords(edition.bytes)}{originWords[
						edition.origin
					]
						? `, ${originWords[edition.origin]}`
						: ''}<small
						>{edition.inForce
							? 'in force'
							: edition.pending
								? 'being checked'
								: edition.condition.status === 'refused'
									? conditionWords.refused.toLowerCase()
									: ''}{edition.by ? `${edition.inForce ? ', ' : ''}by ${edition.by}` : ''}</small
					></span
				>
				<span class="do">
					{#if older && edition.condition.status !== 'checking'}<a
							class="quiet"
							href="/desk/documents/{slug}/compare?before={older.number}&after={edition.number}">What changed</a
						>{/if}
					{#if !edition.inForce && (edition.condition.status === 'sound' || edition.condition.status === 'look')}<Button
							kind="quiet"
							onclick={() => putInForce(edition)}>{edition.number < inForce.number ? 'Go back to it' : 'Put in force'}</Button
						>{/if}
				</span>
			</li>
		{/each}
	</ol>
{/if}

<style>
	.head {
		display: flex;
		gap: 12px;
		align-items: baseline;
		margin-top: 8px;
		font-size: 13px;
		color: var(--ink-soft);
	}
	.head :global(button) {
		margin-left: auto;
		font-size: 13px;
	}
	ol {
		margin-top: 3px;
		max-height: 220px;
	}
	li {
		align-items: baseline;
	}
	li.on {
		background: var(--verdigris-wash);
	}
	.do {
		display: flex;
		flex-direction: column;
		align-items: flex-end;
	}
	.do :global(.quiet) {
		font-size: 13px;
	}
</style>
