<!-- Keys for the documents chosen, for each of a list of addresses: one mail an address. -->
<script lang="ts">
	import { counted } from '#core/text/list';
	import { splitAddresses } from '#core/people/addresses';
	import { act } from '$lib/ui/parts/act';
	import { call, type Answer } from '$lib/ui/parts/api';
	import KeyLimits from '$lib/ui/access/KeyLimits.svelte';
	import { Button, Textarea } from '$lib/ui/parts/controls';
	import { refresh } from '$lib/ui/parts/refresh';

	let { documents, zone, done }: { documents: readonly string[]; zone: string; done: () => void } = $props();
	let pasted = $state('');
	let words = $state('');
	let until = $state('');
	let openings = $state<number | null>(null);
	let save = $state(true);
	let print = $state(true);
	let busy = $state(false);
	let trouble = $state('');
	type Mailed = Answer<'post /keys/mail'>['items'];
	/** Those whose mail was not taken, with the addresses of their keys: shown this once. */
	let unmailed = $state.raw<Mailed>([]);
	const addresses = $derived(splitAddresses(pasted));

	async function mail(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		trouble = '';
		await act(
			({ items }) =>
				`${counted(items.flatMap(({ keys }) => keys).length, 'key', 'keys')} issued, ${counted(items.filter((i) => i.mailed).length, 'mail is', 'mails are')} on their way.`,
			() =>
				call('post /keys/mail', {
					body: {
						documents: [...documents],
						addresses,
						allow: { save, print },
						...(until ? { until } : {}),
						...(openings ? { openings } : {}),
						...(words.trim() ? { words } : {})
					}
				}),
			// what was mailed cannot be called back; what it opens can
			async ({ items }) => {
				for (const { id } of items.flatMap(({ keys }) => keys)) await call('delete /keys/{id}', { path: { id } });
			},
			{
				trouble: (said) => (trouble = said),
				show: async ({ items }) => {
					unmailed = items.filter((item) => !item.mailed);
					pasted = '';
					await refresh();
					if (!unmailed.length) done();
				}
			}
		);
		busy = false;
	}
</script>

{#if unmailed.length}
	<div role="alert">
		<p><b>These keys could not be mailed.</b> Hand the addresses on yourself; they are shown this once.</p>
		<ul>
			{#each unmailed as { address, keys } (address)}
				<li>
					{address}{#each keys as { id, url } (id)}<br /><code>{url}</code>{/each}
				</li>
			{/each}
		</ul>
		<Button onclick={done}>Done</Button>
	</div>
{:else}
	<form class="fields" onsubmit={mail}>
		<label class="wide"
			>A key to each of them, for each of these addresses; one mail an address
			<Textarea rows={4} bind:value={pasted} required placeholder="Ann Heron &lt;ann@example.org&gt;, ben@example.org"></Textarea></label
		>
		<label class="wide">A few words for the mail <Textarea rows={2} bind:value={words} maxlength={2000}></Textarea></label>
		{#if trouble}<p class="trouble wide" role="alert">{trouble}</p>{/if}
		<KeyLimits bind:until bind:openings bind:save bind:print {zone}>
			<Button type="submit" kind="main" disabled={busy || !addresses.length}
				>{busy ? 'Mailing…' : addresses.length ? `Mail ${counted(addresses.length * documents.length, 'key', 'keys')}` : 'Mail keys'}</Button
			>
		</KeyLimits>
	</form>
{/if}

<style>
	code {
		overflow-wrap: anywhere;
	}
</style>
