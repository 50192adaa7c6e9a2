<!-- Tokens for programs: made with what each may do, in which folders and until when, shown once, withdrawn. -->
<script lang="ts">
	import { Button, Checkbox, Day, Input } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import { folderScopes, scopes, scopeWords, type Scope } from '#core/people/scope';
	import type { TokenView } from '$lib/server/people/tokens';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import { dayText } from '$lib/ui/parts/when';

	interface Props {
		tokens: readonly TokenView[];
		/** Folders that a token can be bound to. */
		folders: readonly string[];
		/** The site’s address, for the example. */
		origin: string;
		zone: string;
		/** The day it is, and the last day that a token can have. */
		today: string;
		latest: string;
		usual: string;
	}
	let { tokens, folders, origin, zone, today, latest, usual }: Props = $props();
	let label = $state('');
	let chosen = $state<Scope[]>(['documents:read']);
	let bound = $state<string[]>([]);
	let until = $state(untrack(() => usual));
	let made = $state<{ label: string; token: string } | null>(null);
	const allowed = $derived(bound.length ? folderScopes : scopes);
	const wanted = $derived(chosen.filter((scope) => allowed.includes(scope)));

	function make(event: SubmitEvent) {
		event.preventDefault();
		void act('', async () => {
			made = await call('post /tokens', { body: { label, scopes: wanted, folders: bound.length ? bound : null, until } });
			label = '';
		});
	}
	const withdraw = (token: TokenView) =>
		act(`“${token.label}” is withdrawn, with the keys and webhooks that it made.`, () => call('delete /tokens/{id}', { path: { id: token.id } }));
	async function copy() {
		// the button stands beside it
		await navigator.clipboard.writeText(made!.token).then(
			() => notify('Copied.'),
			() => notify('The browser did not allow copying; select the token and copy it.', { tone: 'wrong' })
		);
	}
</script>

<p>
	A program with a token speaks to the <a href="/api/docs">API</a> in your name, as far as the token goes. Make one for each program, so that each can be withdrawn
	by itself. No token makes others or opens the desk.
</p>
{#if made}
	<div class="say" role="status">
		<p>The token “{made.label}”. It is shown this once:</p>
		<p class="flex flex-wrap items-center gap-3"><code>{made.token}</code><Button onclick={copy}>Copy</Button></p>
		<p class="soft">curl -H "Authorization: Bearer {made.token.slice(0, 12)}…" {origin}/api/v1/documents</p>
	</div>
{/if}
<form onsubmit={make}>
	<div class="line">
		<label>Which program it is for<Input bind:value={label} required maxlength={100} /></label>
		<label>Its last day<Day label="Its last day" bind:value={until} required least={today} most={latest} /></label>
	</div>
	<fieldset>
		<legend>What it may do</legend>
		{#each scopes as scope (scope)}
			<label class="choice" class:soft={!allowed.includes(scope)}
				><Checkbox bind:group={chosen} value={scope} disabled={!allowed.includes(scope)} />
				{scopeWords[scope]} <code>{scope}</code></label
			>
		{/each}
	</fieldset>
	{#if folders.length}
		<fieldset>
			<legend>Only in these folders <span class="soft">(none chosen: all)</span></legend>
			{#each folders as folder (folder)}<label class="choice"><Checkbox bind:group={bound} value={folder} /> {folder || 'no folder'}</label>{/each}
		</fieldset>
	{/if}
	<Button type="submit" kind="main" disabled={!wanted.length}>Make a token</Button>
</form>
{#if tokens.length}
	<Table class="rows">
		<TableHead
			><TableHeadCell>For</TableHeadCell><TableHeadCell>May</TableHeadCell><TableHeadCell>Until</TableHeadCell><TableHeadCell>Last used</TableHeadCell
			><TableHeadCell></TableHeadCell></TableHead
		>
		<TableBody>
			{#each tokens as token (token.id)}
				{@const over = token.until < today}
				<TableBodyRow class={{ soft: token.withdrawnAt ?? over }}>
					<TableBodyCell>{token.label}<small>made {dayText(token.createdAt, zone)}</small></TableBodyCell>
					<TableBodyCell
						>{token.scopes.join(', ')}{#if token.folders}<small>in {token.folders.map((f) => f || 'no folder').join(', ')}</small>{/if}</TableBodyCell
					>
					<TableBodyCell>{dayText(token.until, zone)}</TableBodyCell>
					<TableBodyCell>{token.usedAt ? dayText(token.usedAt, zone) : 'Not yet'}</TableBodyCell>
					<TableBodyCell class="n"
						>{#if token.withdrawnAt}withdrawn {dayText(token.withdrawnAt, zone)}{:else if over}over{:else}<Button kind="quiet" onclick={() => withdraw(token)}
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
		display: grid;
		gap: 12px;
		margin: 14px 0 20px;
		justify-items: start;
	}
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 16px;
		width: 100%;
	}
	.line label {
		display: grid;
		gap: 4px;
	}
	.line label:first-child {
		flex: 1;
		max-width: 380px;
	}
	fieldset {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
		gap: 2px 16px;
		width: 100%;
	}
	legend {
		margin-bottom: 4px;
	}
	.choice {
		display: flex;
		gap: 8px;
		align-items: baseline;
		min-height: 28px;
	}
	.choice code {
		font-size: 12px;
		color: var(--ink-soft);
	}
	.say {
		margin: 12px 0;
		display: grid;
		gap: 6px;
	}
	.say code {
		overflow-wrap: anywhere;
	}
	small {
		display: block;
		color: var(--ink-soft);
	}
</style>
