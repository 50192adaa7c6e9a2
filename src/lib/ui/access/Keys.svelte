<!-- The keys of a document: issued, shown once with their address, and what each did. -->
<script lang="ts">
	import { Button, Input, Textarea } from '$lib/ui/parts/controls';
	import { counted } from '#core/text/list';
	import type { Position } from '#core/access/door';
	import { splitAddresses } from '#core/people/addresses';
	import type { KeyView } from '$lib/server/access/key-list';
	import { keyFacts, stateWords } from './key-words';
	import { refresh } from '$lib/ui/parts/refresh';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import KeyLimits from './KeyLimits.svelte';
	import HouseWord from '$lib/ui/parts/HouseWord.svelte';
	import { notify } from '$lib/ui/parts/notices.svelte';

	let {
		slug,
		keys,
		position,
		zone,
		open = $bindable(false)
	}: { slug: string; keys: readonly KeyView[]; position: Position; zone: string; open: boolean } = $props();

	let label = $state('');
	let save = $state(true);
	let print = $state(true);
	let until = $state('');
	let openings = $state<number | null>(null);
	let password = $state('');
	let busy = $state(false);
	let trouble = $state('');
	/** The key just issued: its address is shown this once. */
	let issued = $state<{ label: string; url: string; qr: string } | null>(null);
	/** Keys for a list of addresses, each its own, mailed. */
	let several = $state(false);
	let pasted = $state('');
	let words = $state('');
	let unmailed = $state<readonly { address: string; url: string }[]>([]);
	let first = $state<HTMLInputElement>();
	// asked for by its key: the field is there already
	$effect(() => {
		if (open && !several && document.activeElement !== first && !label) first?.focus();
	});
	const addresses = $derived(splitAddresses(pasted));

	const limits = () => ({ allow: { save, print }, ...(until ? { until } : {}), ...(openings ? { openings } : {}) });
	const say = (words: string) => (trouble = words);
	const show = () => refresh('document');

	async function mail(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		await act(
			({ items }) => `${counted(items.filter((i) => i.mailed).length, 'key is', 'keys are')} on their way.`,
			async () => {
				const made = await call('post /documents/{slug}/keys/mail', {
					path: { slug },
					body: {
						addresses,
						...limits(),
						...(words.trim() ? { words } : {})
					}
				});
				// what was not mailed has its address in the answer
				unmailed = made.items.filter((i) => !i.mailed).map((i) => ({ address: i.address, url: i.url! }));
				[pasted, words, until, openings, several, open] = ['', '', '', null, false, false];
				return made;
			},
			null,
			{ trouble: say, show }
		);
		busy = false;
	}

	async function issue(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		const change = async () => {
			const { url } = await call('post /documents/{slug}/keys', { path: { slug }, body: { label, ...limits(), ...(password ? { password } : {}) } });
			const { toString } = await import('qrcode');
			issued = { label, url, qr: await toString(url, { type: 'svg', margin: 4 }) };
			first?.blur();
			[label, until, openings, password, open] = ['', '', null, '', false];
		};
		await act('', change, null, { trouble: say, show });
		busy = false;
	}
	async function copy() {
		try {
			// the button stands beside it
			await navigator.clipboard.writeText(issued!.url);
			notify('The key’s address is copied.');
		} catch {
			notify('The browser did not allow copying. Mark the address and copy it by hand.', { tone: 'wrong' });
		}
	}
	const withdraw = ({ id, label }: KeyView) =>
		act(
			`The key “${label}” opens nothing any more.`,
			() => call('delete /keys/{id}', { path: { id } }),
			() => call('post /keys/{id}/restore', { path: { id } }),
			{ show }
		);
</script>

<div class="head">
	<span
		><HouseWord word="Key" shown={keys.length ? counted(keys.length, 'key', 'keys') : 'No keys'} />{keys.length && position === 'shut'
			? ', suspended while the door is shut'
			: ''}</span
	>
	{#if keys.length}<a href="/desk/people/keys?document={slug}">All its keys as a list</a>{/if}
	<Button
		kind="quiet"
		onclick={() => {
			several = true;
			open = true;
		}}>Several at once</Button
	>
</div>
{#if issued}
	<div class="issued" role="status">
		<p><b>The key “{issued.label}”.</b> Its address is shown this once; afterwards only what was done with it is known.</p>
		<p><code>{issued.url}</code></p>
		<div class="flex items-end gap-3">
			<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn here from our own address -->
			<div class="qr" role="img" aria-label="The address as a QR code">{@html issued.qr}</div>
			<Button kind="main" onclick={copy}>Copy the address</Button>
			<Button onclick={() => (issued = null)}>Done</Button>
		</div>
	</div>
{/if}
{#if unmailed.length}
	<div class="issued" role="alert">
		<p><b>These keys could not be mailed.</b> Hand the addresses on yourself; they are shown this once.</p>
		{#each unmailed as { address, url } (address)}<p>{address}<br /><code>{url}</code></p>{/each}
		<Button onclick={() => (unmailed = [])}>Done</Button>
	</div>
{/if}
{#if open || !several}
	<form id="issue-key" class="fields panel" onsubmit={several ? mail : issue}>
		{#if several}
			<label class="wide"
				>A key for each of these addresses, mailed
				<Textarea rows={4} bind:value={pasted} required placeholder="Ann Heron &lt;ann@example.org&gt;, ben@example.org"></Textarea></label
			>
			<label class="wide">A few words for the mail <Textarea rows={2} bind:value={words} maxlength={2000}></Textarea></label>
		{:else}
			<label class="wide"
				>A key for
				<Input
					bind:elementRef={first}
					bind:value={label}
					required
					maxlength={200}
					placeholder="A person, a firm, a committee"
					onfocus={() => (open = true)}
				/></label
			>
		{/if}
		{#if open}
			<KeyLimits bind:until bind:openings bind:save bind:print {zone}>
				{#snippet more()}{#if !several}<label class="wide"
							>Password, if it shall have one <Input bind:value={password} minlength={4} maxlength={200} autocomplete="off" placeholder="None" /></label
						>{/if}{/snippet}
				<Button type="submit" kind="main" disabled={busy || (several && !addresses.length)}
					>{several && addresses.length ? `Mail ${counted(addresses.length, 'key', 'keys')}` : several ? 'Mail keys' : 'Issue'}</Button
				>
				<Button
					onclick={() => {
						[label, open, several] = ['', false, false];
					}}>Leave it</Button
				>
			</KeyLimits>
		{/if}
		{#if trouble}<p class="trouble wide" role="alert">{trouble}</p>{/if}
	</form>
{/if}
{#if keys.length}
	<ul class="lines">
		{#each keys as key (key.id)}
			<li class:over={key.state !== 'good'}>
				<span class="what"
					><b>{key.label}</b>{#if key.state !== 'good'}<em>{stateWords[key.state]}</em>{/if}<small
						>{keyFacts(key, zone)} · <a href="/desk/readership/by/key/{key.id}">what was done with it</a></small
					></span
				>
				{#if key.state === 'good'}<Button kind="quiet" onclick={() => withdraw(key)} aria-label="Withdraw the key “{key.label}”">Withdraw</Button>{/if}
			</li>
		{/each}
	</ul>
{/if}

<style>
	.head {
		display: flex;
		gap: 12px;
		align-items: baseline;
		margin-top: 10px;
		font-size: 13px;
		color: var(--ink-soft);
	}
	.head :global(button) {
		margin-left: auto;
		font-size: 13px;
	}
	.issued {
		margin-top: 6px;
		padding: 9px 11px;
		background: var(--brass-wash);
		border: 1px solid var(--brass-bright);
		border-radius: var(--corner);
		font-size: 13px;
		display: grid;
		gap: 7px;
	}
	code {
		overflow-wrap: anywhere;
		font-size: 12.5px;
	}
	.qr {
		width: 108px;
		height: 108px;
		background: #fff;
	}
	form {
		margin-top: 6px;
	}
	ul {
		margin-top: 4px;
		max-height: 240px;
	}
	em {
		font-style: normal;
		margin-left: 8px;
		color: var(--ink-soft);
	}
	.over b {
		font-weight: 400;
		color: var(--ink-soft);
	}
</style>
