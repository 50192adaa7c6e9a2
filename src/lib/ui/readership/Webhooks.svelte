<!-- Programs elsewhere that are told what happens: made with a secret shown once, tried, given another secret, withdrawn. -->
<script lang="ts">
	import { Button, Checkbox, Input } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
	import type { WebhookEvent } from '#core/readership/webhook';
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
		receipt: 'receipt given',
		'brought-in': 'brought in',
		'edition-in-force': 'new edition in force',
		'condition-changed': 'condition changed',
		'source-changed': 'source changed or gone',
		'set-aside': 'set aside',
		restored: 'restored',
		'door-changed': 'door changed',
		'key-issued': 'key issued',
		'key-withdrawn': 'key withdrawn',
		'page-published': 'page published',
		'page-taken-down': 'page taken down',
		'member-added': 'member added',
		'member-changed': 'member changed',
		'member-removed': 'member taken out'
	};
	const sorts: readonly (readonly [string, readonly WebhookEvent[]])[] = [
		['Readers', ['opened', 'saved', 'turned-away', 'knocked', 'receipt']],
		['Documents', ['brought-in', 'edition-in-force', 'condition-changed', 'source-changed', 'set-aside', 'restored']],
		['Doors and keys', ['door-changed', 'key-issued', 'key-withdrawn']],
		['Pages', ['page-published', 'page-taken-down']],
		['Members', ['member-added', 'member-changed', 'member-removed']]
	];
	/** What became of the last message that was sent to try one. */
	let tried = $state<{ id: string; arrived: boolean; answer: string } | null>(null);
	const tryOut = (id: string) =>
		act('', async () => {
			tried = { id, ...(await call('post /webhooks/{id}/test', { path: { id } })) };
		});
	const anotherSecret = (id: string) =>
		act('', async () => {
			made = (await call('post /webhooks/{id}/secret', { path: { id } })).secret;
		});
	const add = () =>
		act('', async () => {
			made = (await call('post /webhooks', { body: { url, events } })).secret;
			url = '';
		});
</script>

<p>
	Each gets a signed message (Standard Webhooks) when a document is opened, saved, or something else you choose happens. What fails is tried again for three
	days.
</p>
{#if made}<div class="say" role="status">
		<p>The secret by which its program checks our signature. It is shown this once. Where there was one before, messages are signed with both for a day:</p>
		<p><code>{made}</code></p>
	</div>{/if}
<form
	onsubmit={(e) => {
		e.preventDefault();
		void add();
	}}
>
	<Input type="url" bind:value={url} required placeholder="https://example.org/told" aria-label="Address that is told" />
	<Button type="submit" kind="main" disabled={!events.length}>Tell it</Button>
	<div class="sorts" role="group" aria-label="What it is told">
		{#each sorts as [sort, among] (sort)}
			<span class="events" role="group" aria-label={sort}
				><b>{sort}</b><span
					>{#each among as event (event)}<label><Checkbox bind:group={events} value={event} />{words[event]}</label>{/each}</span
				></span
			>
		{/each}
	</div>
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
							>{/if}{#if tried?.id === w.id}<small class={tried.arrived ? undefined : 'wrong'} role="status"
								>{tried.arrived ? 'The test arrived' : 'The test did not arrive'}: {tried.answer}</small
							>{/if}</TableBodyCell
					>
					<TableBodyCell class="n"
						>{#if w.withdrawnAt}withdrawn {dayText(w.withdrawnAt, zone)}{:else}{#if w.failed || w.ended || w.waiting}<Button
									kind="quiet"
									onclick={() => act('What failed is sent again now.', () => call('post /webhooks/{id}', { path: { id: w.id } }))}>Try again</Button
								>{/if}
							<Button kind="quiet" onclick={() => tryOut(w.id)}>Send a test</Button>
							<Button kind="quiet" onclick={() => anotherSecret(w.id)}>New secret</Button>
							<Button kind="quiet" onclick={() => act('It is told nothing any more.', () => call('delete /webhooks/{id}', { path: { id: w.id } }))}
								>Withdraw</Button
							>{/if}</TableBodyCell
					>
				</TableBodyRow>
			{/each}
		</TableBody>
	</Table>
	<p class="mt-3"><a href="/desk/upkeep/messages">Every message, and what became of it</a></p>
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
	.sorts {
		display: grid;
		flex: 1 0 100%;
		gap: 6px;
		margin-bottom: 14px;
	}
	.events {
		display: grid;
		grid-template-columns: 120px 1fr;
		font-size: 14px;
	}
	.events b {
		font-weight: 600;
	}
	.events span {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 12px;
	}
	@media (width < 600px) {
		.events {
			grid-template-columns: 1fr;
		}
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
