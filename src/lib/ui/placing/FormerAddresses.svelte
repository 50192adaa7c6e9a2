<!-- Where a document lay on an old website: its former addresses, by hand, with who still comes by each. -->
<script lang="ts">
	import { Button, Input } from '$lib/ui/parts/controls';
	import { counted } from '#core/text/list';
	import { act, answerTo } from '$lib/ui/parts/act';
	import { ApiTrouble, call, type Answer } from '$lib/ui/parts/api';

	let { slug }: { slug: string } = $props();
	let items = $state<Answer<'get /former-addresses'>['items']>([]);
	let typed = $state('');
	let opened = $state(false);

	const load = async () => (items = (await call('get /former-addresses', { query: { document: slug } })).items);
	const add = () =>
		act(
			`${typed} leads here from now on.`,
			async () => {
				const [done] = (await call('post /former-addresses', { body: { items: [{ path: typed, document: slug }] } })).items;
				if (done?.outcome === 'refused') throw new ApiTrouble(`It does not lead here: ${done.why ?? ''}.`);
				typed = '';
				await load();
			},
			null
		);
	const drop = (id: string, path: string) =>
		act(
			`${path} leads nowhere any more.`,
			async () => {
				const { before } = await call('delete /former-addresses/{id}', { path: { id } });
				await load();
				return before;
			},
			async (before) => {
				await call('post /former-addresses', { body: { items: [before] } });
				await load();
			}
		);
</script>

<details
	ontoggle={(e) => {
		if (e.currentTarget.open && !opened) {
			opened = true;
			// what could not be fetched is said, and asked for again at the next opening
			void answerTo(load()).then((done) => (opened = done !== undefined));
		}
	}}
>
	<summary>Former addresses: where it lay on an old website</summary>
	<ul>
		{#each items as item (item.id)}
			<li>
				<code>{item.path}</code>
				<span class="soft">{item.asked ? counted(item.asked, 'person came by it', 'people came by it') : 'nobody came by it yet'}</span>
				<Button kind="quiet" onclick={() => drop(item.id, item.path)} aria-label="Let {item.path} go">Let it go</Button>
			</li>
		{/each}
	</ul>
	<form
		onsubmit={(e) => {
			e.preventDefault();
			void add();
		}}
	>
		<Input bind:value={typed} required maxlength={500} placeholder="https://old.example.org/files/guide.pdf" aria-label="Where it lay on the old website" />
		<Button type="submit">Lead here</Button>
	</form>
	<p class="soft">Many at once, and those that were asked for and are not here: <a href="/desk/upkeep/former">Former addresses</a>.</p>
</details>

<style>
	ul {
		display: grid;
		gap: 4px;
		margin: 8px 0;
	}
	li,
	form {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px 12px;
	}
	code {
		overflow-wrap: anywhere;
	}
	p {
		margin-top: 8px;
	}
</style>
