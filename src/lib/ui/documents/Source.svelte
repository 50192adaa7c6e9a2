<!-- The web address a document came from: watched or not, and what is there now. -->
<script lang="ts">
	import { Button, Checkbox } from '$lib/ui/parts/controls';
	import { goto } from '$app/navigation';
	import type { SourceView } from '$lib/server/documents/view';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { timeText } from '$lib/ui/parts/when';

	/** `inForce` is the number of the edition in force. */
	let { slug, source, inForce, zone }: { slug: string; source: SourceView; inForce: number; zone: string } = $props();
	let busy = $state(false);
	const stateWords = { same: 'The same as here', changed: 'Changed', gone: 'Gone', unreachable: 'Not reached' } as const;

	async function change(words: string, work: () => Promise<unknown>) {
		busy = true;
		await act(words, work);
		busy = false;
	}
	const look = (what: 'compare' | 'beside' | 'take' | 'leave', words = '') =>
		change(words, () => call('post /documents/{slug}/source', { path: { slug }, body: { do: what } }));
	const compared = (after: number) => `/desk/documents/${slug}/compare?before=${inForce}&after=${after}`;
	/** Fetches the changed file and leads to both beside each other. */
	const beside = () =>
		change('', async () => {
			const { source: now } = await call('post /documents/{slug}/source', { path: { slug }, body: { do: 'beside' } });
			if (now?.beside) await goto(compared(now.beside));
		});
	const setWatch = (watch: boolean) =>
		change(watch ? 'Watched: the site looks every hour.' : 'No longer watched.', () =>
			call('patch /documents/{slug}/source', { path: { slug }, body: { watch } })
		);
</script>

<div class="source" class:wrong={source.state === 'gone' || source.state === 'unreachable'} class:news={source.state === 'changed'}>
	<p>From <a href={source.url} rel="noopener noreferrer" target="_blank" class="break-all">{source.url}</a></p>
	<p>
		<b>{stateWords[source.state]}</b>, looked {timeText(source.checkedAt, zone)}. {source.note}{source.state === 'gone' ? ' Our own copy stays as it is.' : ''}
	</p>
	<div class="do">
		{#if source.state === 'changed'}
			<Button kind="main" disabled={busy} onclick={() => look('take', 'Taken as the new edition.')}>Take as new edition</Button>
			{#if source.beside === null}
				<Button disabled={busy} onclick={beside}>{busy ? 'Fetching…' : 'See what changed'}</Button>
			{:else}<a href={compared(source.beside)}>See what changed</a>{/if}
			<Button disabled={busy} onclick={() => look('leave', 'Left as it is; the next change is offered again.')}>Leave it</Button>
		{/if}
		<Button kind="quiet" disabled={busy} onclick={() => look('compare')}>{busy ? 'Looking…' : 'Look now'}</Button>
		<label><Checkbox checked={source.watch} onchange={(e) => setWatch(e.currentTarget.checked)} /> Watch</label>
	</div>
</div>

<style>
	.source {
		border: 1px solid var(--line);
		border-radius: var(--corner);
		padding: 7px 10px;
		font-size: 13px;
		margin-top: 6px;
	}
	.news {
		border-color: var(--brass-bright);
		background: var(--brass-wash);
	}
	.wrong {
		border-color: var(--brick);
	}
	.do {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 12px;
		align-items: center;
		margin-top: 5px;
	}
	label {
		display: flex;
		gap: 6px;
		align-items: center;
	}
</style>
