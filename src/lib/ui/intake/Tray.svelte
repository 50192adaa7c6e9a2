<!-- The tray: what is on its way in, with a number for each wait. -->
<script lang="ts">
	import { Progressbar } from 'flowbite-svelte';
	import { sizeWords } from '#core/documents/size';
	import { canRetry, clearDone, retry, stop, tray } from './tray.svelte';
</script>

{#if tray.open && tray.entries.length}
	<section class="tray" aria-label="Intake tray">
		<header>
			<h2>Intake</h2>
			<button class="quiet" onclick={clearDone}>Clear finished</button>
			<button class="quiet" onclick={() => (tray.open = false)}>Hide</button>
		</header>
		<ul>
			{#each tray.entries as entry (entry.key)}
				<li>
					<div class="flex items-baseline gap-3">
						<strong class="min-w-0 flex-1 truncate" title={entry.name}>{entry.title ?? entry.name}</strong>
						<span class="soft">{sizeWords(entry.bytes)}</span>
						{#if entry.state === 'in'}
							<a class="quiet" href="/desk/documents/{entry.slug}">Open</a>
						{:else if entry.state === 'waiting' || entry.state === 'uploading'}
							<button class="quiet" onclick={() => stop(entry)}>Stop</button>
						{:else if entry.state === 'refused' && canRetry(entry)}
							<button class="quiet" onclick={() => retry(entry)}>Try again</button>
						{/if}
					</div>
					{#if entry.state === 'uploading' || entry.state === 'checking'}
						<Progressbar progress={Math.round(entry.progress * 100)} size="h-1.5" class="my-1" aria-label="{entry.name}, uploaded" />
						<p class="soft" role="status">{entry.state === 'checking' ? 'Uploaded; being checked' : `${Math.round(entry.progress * 100)} %`}</p>
					{:else if entry.state === 'waiting'}
						<p class="soft">Waiting</p>
					{:else if entry.state === 'in'}
						<p class="done" role="status">In, and shut: set its door next</p>
					{:else}
						<p class="wrong" role="alert">{entry.trouble}</p>
					{/if}
				</li>
			{/each}
		</ul>
	</section>
{/if}

<style>
	.tray {
		position: fixed;
		right: 16px;
		bottom: 16px;
		z-index: 40;
		width: min(420px, calc(100vw - 32px));
		max-height: 60vh;
		display: flex;
		flex-direction: column;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		box-shadow: var(--shadow-lg);
	}
	header {
		display: flex;
		align-items: baseline;
		gap: 14px;
		padding: 10px 14px;
		border-bottom: 1px solid var(--line);
	}
	h2 {
		font-size: 15.5px;
		margin-right: auto;
	}
	ul {
		overflow: auto;
	}
	li {
		padding: 9px 14px;
	}
	li + li {
		border-top: 1px solid var(--line);
	}
	strong {
		font-family: var(--title);
		font-weight: 600;
	}
	.done {
		color: var(--verdigris);
	}
	.wrong {
		color: var(--brick);
	}
</style>
