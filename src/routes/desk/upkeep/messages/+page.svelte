<!-- Messages to programs elsewhere: what was sent, what became of each, and one sent again. -->
<script lang="ts">
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { page } from '$app/state';
	import { act } from '$lib/ui/parts/act';
	import { ApiTrouble, call } from '$lib/ui/parts/api';
	import { Button, Select } from '$lib/ui/parts/controls';
	import { timeText } from '$lib/ui/parts/when';

	let { data } = $props();
	type Message = (typeof data.items)[number];
	const states = { arrived: 'arrived', waiting: 'on the way', 'given-up': 'given up' } as const;
	const programs = $derived(new Map(data.programs.map((w) => [w.id, w])));
	const further = $derived.by(() => {
		const params = new URLSearchParams(page.url.searchParams);
		params.set('after', data.next ?? '');
		return `?${params}`;
	});
	/** What a message is about, in a few words: its document, page or member. */
	function about({ body }: Message): string {
		const { title, document, page, member } = ((body as { data?: object }).data ?? {}) as Record<string, unknown>;
		const name = title ?? document ?? page ?? (member as { name?: string } | undefined)?.name;
		return typeof name === 'string' ? name : '';
	}
	const again = ({ id, webhook }: Message) =>
		act('It arrived.', async () => {
			const { arrived, answer } = await call('post /webhooks/{id}/messages/{message}', { path: { id: webhook, message: id } });
			if (!arrived) throw new ApiTrouble(`It did not arrive: ${answer}.`);
		});
</script>

<svelte:head><title>Messages to programs, {data.site.name}</title></svelte:head>
<section>
	<p class="soft"><a href="/desk/upkeep">Upkeep</a></p>
	<h1>Messages to programs</h1>
	<p class="soft lead">
		What happened, as it was told to programs elsewhere, the newest first. What does not arrive is tried again for three days; messages are kept for thirty.
		Which programs are told what stands in the <a href="/desk/settings#programs">settings</a>.
	</p>
	<form class="filters" data-sveltekit-keepfocus>
		<label
			>To <Select name="to" value={data.query.to}
				><option value="">every program</option>{#each data.programs as w (w.id)}<option value={w.id}>{w.url}</option>{/each}</Select
			></label
		>
		<label
			>Which <Select name="state" value={data.query.state}
				><option value="">all of them</option>{#each Object.entries(states) as [state, words] (state)}<option value={state}>{words}</option>{/each}</Select
			></label
		>
		<Button type="submit">Show</Button>
	</form>
	{#if data.items.length}
		<Table class="rows">
			<TableHead
				><TableHeadCell>When</TableHeadCell><TableHeadCell>What</TableHeadCell><TableHeadCell>To</TableHeadCell><TableHeadCell>What became of it</TableHeadCell
				><TableHeadCell></TableHeadCell></TableHead
			>
			<TableBody>
				{#each data.items as message (message.id)}
					<TableBodyRow>
						<TableBodyCell>{timeText(message.at, data.site.zone)}</TableBodyCell>
						<TableBodyCell>
							<details>
								<summary><b>{message.type}</b> {about(message)}</summary>
								<pre>{JSON.stringify(message.body, null, 2)}</pre>
							</details>
						</TableBodyCell>
						<TableBodyCell class="path">{programs.get(message.webhook)?.url ?? ''}</TableBodyCell>
						<TableBodyCell
							><span class:wrong={message.state === 'given-up'}>{states[message.state]}</span>{#if message.answer}<small
									>{message.answer}{message.tries > 1 ? `, sent ${message.tries} times` : ''}{message.nextAt
										? `, next at ${timeText(message.nextAt, data.site.zone)}`
										: ''}</small
								>{/if}</TableBodyCell
						>
						<TableBodyCell class="n"
							>{#if !programs.get(message.webhook)?.withdrawnAt}<Button kind="quiet" onclick={() => again(message)}>Send it again</Button>{/if}</TableBodyCell
						>
					</TableBodyRow>
				{/each}
			</TableBody>
		</Table>
		{#if data.next}<p class="mt-3"><a href={further}>Earlier ones</a></p>{/if}
	{:else}<p class="soft">{data.query.to || data.query.state ? 'None of these.' : 'None yet: no program is told anything, or nothing has happened.'}</p>{/if}
</section>

<style>
	section {
		max-width: 1120px;
		padding: 16px 18px 60px;
	}
	.lead {
		max-width: 70ch;
		margin: 6px 0 16px;
	}
	.filters {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 16px;
		align-items: end;
		margin-bottom: 12px;
	}
	.filters label {
		display: grid;
		gap: 2px;
		max-width: 320px;
	}
	pre {
		max-width: 60ch;
		overflow-x: auto;
		font-size: 12.5px;
		padding: 8px 0;
	}
	small {
		display: block;
		color: var(--ink-soft);
	}
	.wrong {
		color: var(--brick);
	}
	section :global(td.path) {
		overflow-wrap: anywhere;
	}
</style>
