<!-- What one is told by mail about a document, or the whole site. -->
<script lang="ts">
	import { Button, Input, Radio } from '$lib/ui/parts/controls';
	import { listWords } from '#core/text/list';
	import type { Subscription } from '$lib/server/readership/subscriptions';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import Popup from '$lib/ui/parts/Popup.svelte';
	let { told, document = null }: { told: Subscription; /** Its slug; the whole site where null. */ document?: string | null } = $props();
	let open = $state(false);
	let email = $state('');
	const words = { week: 'every Monday', month: 'on the first of the month' };

	const set = (change: Record<string, unknown>, said: string) => act(said, () => call('patch /readership/subscription', { body: { document, ...change } }));
	const every = (chosen: 'week' | 'month' | null) =>
		set({ every: chosen }, chosen ? `You get this report by mail, ${words[chosen]}.` : 'You get this report no more.');
</script>

<Popup label={told.every ? `By mail, ${words[told.every]}` : 'By mail'} on={told.every !== null || told.waiting.length > 0} bind:open end width={290}>
	<fieldset>
		<legend>Mail me this report</legend>
		{#each [[null, 'Never'], ['week', 'Every Monday'], ['month', 'On the first of the month']] as const as [value, label] (label)}
			<Radio name="every" {value} group={told.every} onchange={() => every(value)}>{label}</Radio>
		{/each}
	</fieldset>
	{#if document}
		<fieldset>
			<legend>Tell me when it is first opened</legend>
			{#if told.waiting.length}
				<p>
					Waiting for {listWords([...told.waiting])}.
					<Button kind="quiet" onclick={() => set({ firstOpening: false }, 'You are not told any more.')}>Stop</Button>
				</p>
			{/if}
			{#if !told.waiting.includes('anybody')}<Button onclick={() => set({ firstOpening: true }, 'You are told by mail when anybody opens it next.')}
					>By anybody</Button
				>{/if}
			<form
				onsubmit={(e) => {
					e.preventDefault();
					void set({ firstOpening: email }, `You are told by mail when ${email} opens it.`).then(() => (email = ''));
				}}
			>
				<Input type="email" bind:value={email} required placeholder="A member’s address" aria-label="A member’s address" />
				<Button type="submit">By them</Button>
			</form>
		</fieldset>
	{/if}
</Popup>

<style>
	fieldset {
		border: 0;
		padding: 2px 0 8px;
		margin: 0;
		display: grid;
		gap: 6px;
		justify-items: start;
		font-size: 14px;
	}
	legend {
		font-weight: 600;
		padding: 0;
		margin-bottom: 4px;
	}
	form {
		display: flex;
		gap: 6px;
		width: 100%;
	}
	form :global(input) {
		flex: 1;
		min-width: 0;
	}
</style>
