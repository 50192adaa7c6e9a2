<!-- Programs elsewhere that are told what happens: made with a secret shown once, tried again, withdrawn. -->
<script lang="ts">
	import { Button, Checkbox, Input } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
	import { webhookEvents, type WebhookEvent } from '#core/readership/webhook';
	import type { WebhookView } from '$lib/server/readership/webhooks';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { dayText } from '$lib/ui/parts/when';
	let { webhooks, zone }: { webhooks: readonly WebhookView[]; zone: string } = $props();
	let url = $state('');
	let events = $state<WebhookEvent[]>(['opened', 'saved']);
	let made = $state<string | null>(null);
	const words: Record<WebhookEvent, string> = {
		opened: 'opened',
		saved: 'saved',
		'turned-away': 'turned away',
		knocked: 'knocked',
		'condition-changed': 'condition changed'
	};
	const add = () =>
		act('', async () => {
			made = (await call('post /webhooks', { body: { url, events } })).secret;
			url = '';
		});
</script>

<p>Each gets a signed message (Standard Webhooks) when a document is opened, saved, or something else you choose. What fails is tried again for three days.</p>
{#if made}<div class="say" role="status">
		<p>The secret by which its program checks our signature. It is shown this once:</p>
		<p><code>{made}</code></p>
	</div>{/if}
<form
	onsubmit={(e) => {
		e.preventDefault();
		void add();
	}}
>
	<Input type="url" bind:value={url} required placeholder="https://example.org/told" aria-label="Address that is told" />
	<span class="events" role="group" aria-label="What it is told">
		{#each webhookEvents as event (event)}<label><Checkbox bind:group={events} value={event} />{words[event]}</label>{/each}
	</span>
	<Button type="submit" kind="main" disabled={!events.length}>Tell it</Button>
</form>
{#if webhooks.length}
	<Table class="rows">
		<TableHead
			><TableHeadCell>Address</TableHeadCell><TableHeadCell>Told of</TableHeadCell><TableHeadCell>Since</TableHeadCell><TableHeadCell>Deliveries</TableHeadCell
			><TableHeadCell></TableHeadCell></TableHead
		>
		<TableBody>
			{#each webhooks as w (w.id)}
				<TableBodyRow class={{ soft: w.withdrawnAt }}>
					<TableBodyCell>{w.url}</TableBodyCell>
					<TableBodyCell>{w.events.map((e) => words[e as WebhookEvent]).join(', ')}</TableBodyCell>
					<TableBodyCell>{dayText(w.createdAt, zone)}</TableBodyCell>
					<TableBodyCell
						>{counted(w.delivered, 'arrived', 'arrived')}{w.waiting
							? `, ${w.waiting} on the way`
							: ''}{#if w.failed || w.ended || (w.waiting && w.trouble)}<small class="wrong"
								>{w.failed ? `${w.failed} given up; ` : ''}{w.ended ?? w.trouble}</small
							>{/if}</TableBodyCell
					>
					<TableBodyCell class="n"
						>{#if w.withdrawnAt}withdrawn {dayText(w.withdrawnAt, zone)}{:else}{#if w.failed || w.ended || w.waiting}<Button
									kind="quiet"
									onclick={() => act('What failed is sent again now.', () => call('post /webhooks/{id}', { path: { id: w.id } }))}>Try again</Button
								>{/if}
							<Button kind="quiet" onclick={() => act('It is told nothing any more.', () => call('delete /webhooks/{id}', { path: { id: w.id } }))}
								>Withdraw</Button
							>{/if}</TableBodyCell
					>
				</TableBodyRow>
			{/each}
		</TableBody>
	</Table>
{:else}<p class="soft">None yet.</p>{/if}

<style>
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 14px;
		align-items: center;
	}
	form :global(.field) {
		flex: 1 1 260px;
	}
	.events {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 12px;
		font-size: 14px;
	}
	.events label {
		display: inline-flex;
		gap: 5px;
		align-items: center;
	}
	small {
		display: block;
	}
	.wrong {
		color: var(--brick);
	}
	code {
		overflow-wrap: anywhere;
	}
</style>
