<!-- The tray: what is on its way in, with a number for each wait. -->
<script lang="ts">
	import { Button, Checkbox } from '$lib/ui/parts/controls';
	import { counted } from '#core/text/list';
	import { sizeWords } from '#core/documents/size';
	import { conditionWords } from '#core/intake/condition';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { chosenRows } from '$lib/ui/documents/chosen.svelte';
	import Progress from '$lib/ui/parts/Progress.svelte';
	import { chooser } from './chooser';
	import KnownAlready from './KnownAlready.svelte';
	import { clearDone, pause, pauseAll, resume, stop, stopAll, tray, underWay } from './tray.svelte';
	import type { TrayEntry } from './entry';

	const entries = $derived(tray.entries);
	const going = $derived(entries.filter(underWay));
	const inNow = $derived(entries.filter((e) => e.state === 'in').length);
	const arrived = $derived(
		(entries.some((e) => e.here) ? entries.filter((e) => e.here) : entries).flatMap((e) =>
			e.state === 'in' && e.document && !e.editionOf ? [e.document.slug] : []
		)
	);
	/** Chooses them in the Documents room, for what is done to many at once. */
	async function chooseThese() {
		tray.open = false;
		if (page.url.pathname !== '/desk/documents') await goto('/desk/documents');
		chosenRows.slugs = [...new Set(arrived)];
	}
	const refused = $derived(entries.filter((e) => e.state === 'refused').length);
	const asked = $derived(entries.filter((e) => e.state === 'known' || e.state === 'needs-file').length);
	const bytes = $derived(entries.reduce((sum, e) => sum + e.bytes, 0));
	const share = $derived(bytes ? entries.reduce((sum, e) => sum + e.bytes * (underWay(e) ? e.progress : 1), 0) / bytes : 1);
	let only = $state(false);
	/** What is on its way stands first, then what somebody has to look at, then what is done, the last of it first. */
	const rank = (e: TrayEntry) => (['known', 'needs-file'].includes(e.state) ? 1 : underWay(e) ? 0 : e.state === 'refused' ? 1 : 2);
	const shown = $derived(
		(only ? entries.filter((e) => rank(e) === 1) : [...entries]).sort((a, b) => rank(a) - rank(b) || (rank(a) === 2 ? b.key - a.key : a.key - b.key))
	);
	const summary = $derived(
		[
			`${inNow} of ${entries.length} in`,
			refused ? `${refused} refused` : '',
			asked ? `${asked} to answer` : '',
			entries.some((e) => e.state === 'stopped') ? `${entries.filter((e) => e.state === 'stopped').length} stopped` : ''
		]
			.filter(Boolean)
			.join(', ')
	);
	const percent = (entry: TrayEntry) => Math.floor(entry.progress * 100);
	const stateWords = (entry: TrayEntry): string => {
		switch (entry.state) {
			case 'looking':
				return 'Looking at it';
			case 'waiting':
				return entry.progress > 0 ? `Waiting, ${percent(entry)} % is here` : 'Waiting';
			case 'uploading':
				return `${percent(entry)} %`;
			case 'paused':
				return `Paused at ${percent(entry)} %`;
			case 'lost':
				return `The connection is lost at ${percent(entry)} %. It goes on by itself when it is back.`;
			case 'needs-file':
				return `${percent(entry)} % is here. Choose the file again, and it goes on from there.`;
			case 'elsewhere':
				return `${percent(entry)} %, sent by another window`;
			case 'checking':
				return entry.trouble ?? (entry.document ? 'Checking' : 'Arrived; checking');
			case 'in':
				return entry.document ? conditionWords[entry.document.condition] : 'In';
			case 'stopped':
				return 'Stopped. Nothing of it was kept.';
			default:
				return '';
		}
	};
</script>

{#if tray.open && entries.length}
	<section class="tray" aria-label="Intake tray">
		<header>
			<h2>Intake</h2>
			<span class="grow"></span>
			{#if going.some((e) => e.state === 'uploading' || e.state === 'waiting')}
				<Button kind="quiet" onclick={() => pauseAll(true)}>Pause</Button>
			{:else if going.some((e) => e.state === 'paused')}
				<Button kind="quiet" onclick={() => pauseAll(false)}>Go on</Button>
			{/if}
			{#if going.some((e) => e.state !== 'checking') && going.length > 1}<Button kind="quiet" onclick={stopAll}>Stop all</Button>{/if}
			{#if !going.length && arrived.length > 1}<Button kind="quiet" onclick={chooseThese}>Choose these {arrived.length}</Button>{/if}
			{#if going.length < entries.length}<Button kind="quiet" onclick={clearDone} title="Take what is finished out of the tray">Clear</Button>{/if}
			<Button kind="quiet" onclick={() => (tray.open = false)}>Hide</Button>
			<p class="soft" role="status">{summary}</p>
		</header>
		{#if going.length > 1}
			<div class="px-3.5 pt-2">
				<Progress percent={share * 100} label="All files" />
				<p class="soft">{Math.floor(share * 100)} % of {sizeWords(bytes)}, {counted(going.length, 'file', 'files')} to go</p>
			</div>
		{/if}
		{#if refused + asked > 0 && entries.length > 6}
			<label class="flex items-center gap-2 px-3.5 pt-2"><Checkbox bind:checked={only} /> Only those that need a look</label>
		{/if}
		<ul>
			{#each shown as entry (entry.key)}
				<li>
					<div class="flex items-baseline gap-3">
						<strong class="min-w-0 flex-1 truncate" title={entry.name}><bdi>{entry.document?.title ?? entry.name}</bdi></strong>
						<span class="soft">{sizeWords(entry.bytes)}</span>
						{#if entry.document && (entry.state === 'in' || entry.state === 'checking')}
							<a class="quiet" href="/desk/documents/{entry.document.slug}">Open</a>
						{:else if entry.state === 'uploading'}
							<Button kind="quiet" onclick={() => pause(entry)} aria-label="Pause {entry.name}">Pause</Button>
							<Button kind="quiet" onclick={() => stop(entry)} aria-label="Stop {entry.name}">Stop</Button>
						{:else if entry.state === 'paused'}
							<Button kind="quiet" onclick={() => resume(entry)} aria-label="Go on with {entry.name}">Go on</Button>
							<Button kind="quiet" onclick={() => stop(entry)} aria-label="Stop {entry.name}">Stop</Button>
						{:else if entry.state === 'needs-file'}
							<Button kind="quiet" onclick={() => chooser.open()}>Choose</Button>
							<Button kind="quiet" onclick={() => stop(entry)} aria-label="Stop {entry.name}">Stop</Button>
						{:else if underWay(entry) && entry.state !== 'checking' && entry.state !== 'elsewhere'}
							<Button kind="quiet" onclick={() => stop(entry)} aria-label="Stop {entry.name}">Stop</Button>
						{/if}
					</div>
					{#if ['uploading', 'paused', 'lost', 'needs-file', 'elsewhere'].includes(entry.state)}
						<Progress percent={percent(entry)} class="my-1" label="{entry.name}, uploaded" />
					{/if}
					{#if entry.state === 'known'}<KnownAlready {entry} />
					{:else if entry.state === 'refused'}<p class="wrong" role="alert">{entry.trouble}</p>
					{:else}
						<p
							class:soft={entry.state !== 'in'}
							class:done={entry.state === 'in' && entry.document?.condition !== 'refused'}
							class:wrong={entry.state === 'in' && entry.document?.condition === 'refused'}
						>
							{stateWords(entry)}{entry.editionOf && entry.state === 'in' ? ', the edition in force' : ''}
						</p>
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
		bottom: calc(16px + var(--foot, 0px));
		z-index: 40;
		width: min(480px, calc(100vw - 32px));
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
		flex-wrap: wrap;
		align-items: baseline;
		gap: 4px 14px;
		padding: 10px 14px;
		border-bottom: 1px solid var(--line);
	}
	header p {
		flex-basis: 100%;
	}
	h2 {
		font-size: 15.5px;
	}
	ul {
		overflow: auto;
	}
	li {
		padding: 9px 14px;
		/* hundreds of files: what is out of sight is not laid out */
		content-visibility: auto;
		contain-intrinsic-size: auto 62px;
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
