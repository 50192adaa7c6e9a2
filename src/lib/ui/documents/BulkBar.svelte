<!-- What can be done with the documents chosen: folder, topics, fields, receipts, door, set aside; each with one undo for all. -->
<script lang="ts">
	import { Modal } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import { Button, Input, Select } from '$lib/ui/parts/controls';
	import { foot } from '$lib/ui/parts/foot';
	import { refresh } from '$lib/ui/parts/refresh';
	import { page } from '$app/state';
	import type { DoorChange } from '#core/access/door';
	import { counted } from '#core/text/list';
	import { filterNames } from '#core/documents/filters';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { act } from '$lib/ui/parts/act';
	import { call, type Answer as AnswerOf, type Given } from '$lib/ui/parts/api';
	import PlaceOnPages from '$lib/ui/placing/PlaceOnPages.svelte';
	import BreakingQuestion from './BreakingQuestion.svelte';
	import type { Field } from '#core/documents/fields';
	import FieldInput from './FieldInput.svelte';
	import BulkDoor from './BulkDoor.svelte';
	import BulkKeys from './BulkKeys.svelte';
	import { askFirst, carryOut, type Answer, type Breaking, type Question } from './breaking';
	import { chooseNone, chosenRows } from './chosen.svelte';

	let {
		fields,
		folders,
		topics,
		total,
		aside,
		zone
	}: {
		/** Those of the site. */
		fields: readonly Field[];
		folders: readonly string[];
		topics: readonly string[];
		total: number;
		aside: boolean;
		/** The site's time zone. */
		zone: string;
	} = $props();

	const many = $derived(chosenRows.slugs.length);
	/** Most documents that one change takes. */
	const most = 1000;
	let folder = $state('');
	let topic = $state('');
	let fieldName = $state(untrack(() => fields[0]?.name ?? ''));
	let fieldValue = $state<string | number | null>(null);
	const field = $derived(fields.find((one) => one.name === fieldName));
	$effect(() => {
		if (fieldName) fieldValue = null;
	});
	let busy = $state(false);
	let doorShown = $state(false);
	let placing = $state(false);
	let issuing = $state(false);
	/** The browser takes the zip by itself; where the session or the connection has gone, that is said, and mended, before it leaves the desk. */
	async function zip(event: SubmitEvent) {
		event.preventDefault();
		const form = event.currentTarget as HTMLFormElement;
		busy = true;
		const there = await act('', () => call('get /documents', { query: { limit: 1 } }), null, { show: () => {} });
		busy = false;
		if (there) form.submit();
	}
	/** Most documents of which keys are issued at once. */
	const mostKeyed = 50;
	/** Most documents that are placed at once. */
	const mostPlaced = 200;
	const keysTitle = $derived(`Keys to ${counted(many, 'document', 'documents')}`);
	const doorTitle = $derived(`Door of ${counted(many, 'document', 'documents')}`);

	let question = $state<Question | null>(null);
	const asideWords = 'set aside. They can be restored for 30 days.';
	/** What is said of the change that was asked about, once it is made. */
	let asked = '';

	const change = (what: Omit<Given<'post /bulk'>['body'], 'documents'>, words: string) =>
		press(what, () => call('post /bulk', { body: { documents: chosenRows.slugs, ...what } }), words);
	const ask = (breaking: Breaking, words: string, trouble?: (words: string) => void) => {
		asked = words;
		return press(breaking, () => askFirst(chosenRows.slugs, breaking), words, false, trouble);
	};
	let doorTrouble = $state('');
	/** The dialog stays with what was chosen in it until that is done. */
	async function setDoors(door: DoorChange, words: string) {
		if (await ask({ door }, words, (said) => (doorTrouble = said))) doorShown = false;
	}

	/** Changes those chosen; `final` where placements go too, which undoing does not bring back. */
	async function press(
		what: Breaking | Record<string, unknown>,
		work: () => Promise<Answer>,
		words: string,
		final = false,
		trouble?: (words: string) => void
	): Promise<boolean> {
		busy = true;
		const show = async ({ asks, elsewhere }: Answer) => {
			if (asks) {
				question = { documents: [...chosenRows.slugs], change: what as Breaking, places: asks, elsewhere: elsewhere ?? [] };
				return;
			}
			// set aside or brought back, they are not to be seen here any more
			if ('aside' in what) chooseNone();
			await refresh();
		};
		const done = await act(
			({ undo, asks }) => (asks ? '' : `${counted(undo.length, 'document', 'documents')}: ${words}`),
			work,
			final ? null : ({ undo }) => call('post /bulk/undo', { body: { undo } }),
			{ show, trouble }
		);
		busy = false;
		return done !== undefined;
	}

	/** Chooses all that match, beyond the page shown. */
	async function everything() {
		busy = true;
		const show = () => {};
		await act('', every, null, { show });
		busy = false;
	}
	type Part = AnswerOf<'get /documents'>;
	async function every() {
		const params = page.url.searchParams;
		const narrowed = Object.fromEntries(filterNames.map((name) => [name, params.getAll(name)]));
		const [q, order] = [params.get('q') ?? undefined, params.get('order') ?? undefined];
		const slugs: string[] = [];
		for (let cursor: string | null = '0'; cursor !== null && slugs.length < most;) {
			const part: Part = await call('get /documents', { query: { ...narrowed, q, order, aside, limit: 200, cursor } });
			slugs.push(...part.items.map((i) => i.slug));
			cursor = part.next;
		}
		chosenRows.slugs = slugs.slice(0, most);
	}
</script>

<BreakingQuestion bind:question go={(answered, takeOut) => void press(answered.change, () => carryOut(answered, takeOut), asked, takeOut.length > 0)} />

<Modal title={doorTitle} aria-label={doorTitle} bind:open={doorShown} size="sm"
	><BulkDoor {many} {zone} {busy} trouble={doorTrouble} set={(door, words) => void setDoors(door, words)} /></Modal
>

<Modal title="Place on pages" aria-label="Place on pages" bind:open={placing} size="md"
	><PlaceOnPages documents={chosenRows.slugs.map((slug) => ({ slug }))} done={() => (placing = false)} /></Modal
>

<Modal title={keysTitle} aria-label={keysTitle} bind:open={issuing} size="sm"
	><BulkKeys documents={chosenRows.slugs} {zone} done={() => (issuing = false)} /></Modal
>

<div class="bar" {@attach foot} role="toolbar" aria-label="Change the documents chosen">
	<strong>{many} chosen</strong>
	{#if many < Math.min(total, most)}<Button kind="quiet" disabled={busy} onclick={everything}>Choose all {Math.min(total, most)} that match</Button>{/if}
	<span class="grow"></span>
	{#if aside}
		<Button kind="main" disabled={busy} onclick={() => change({ aside: false }, 'brought back.')}>Restore</Button>
	{:else}
		<Popup label="Folder" plain up disabled={busy}>
			<form
				class="flex gap-2"
				onsubmit={(e) => {
					e.preventDefault();
					void change({ folder }, folder.trim() ? `now in “${folder.trim()}”.` : 'now in no folder.');
				}}
			>
				<Input class="min-w-0 grow" list="bulk-folders" placeholder="Folder, or nothing for none" aria-label="Folder" bind:value={folder} maxlength={200} />
				<Button type="submit" kind="main">Move</Button>
			</form>
			<datalist id="bulk-folders"
				>{#each folders as name (name)}<option value={name}></option>{/each}</datalist
			>
		</Popup>
		<Popup label="Topics" plain up disabled={busy} width={290}>
			<form
				class="flex gap-2"
				onsubmit={(e) => {
					e.preventDefault();
					void change({ addTopics: [topic] }, `“${topic.trim()}” added.`);
				}}
			>
				<Input class="min-w-0 grow" list="bulk-topics" placeholder="Topic" aria-label="Topic" bind:value={topic} required maxlength={80} />
				<Button type="submit" kind="main">Add</Button>
				<Button disabled={!topic.trim()} onclick={() => change({ removeTopics: [topic.trim()] }, `“${topic.trim()}” taken away.`)}>Take away</Button>
			</form>
			<datalist id="bulk-topics"
				>{#each topics as name (name)}<option value={name}></option>{/each}</datalist
			>
		</Popup>
		{#if fields.length}
			<Popup label="Fields" plain up disabled={busy} width={320}>
				<div class="grid gap-2">
					<Select aria-label="Field" bind:value={fieldName}>
						{#each fields as one (one.name)}<option value={one.name}>{one.words}</option>{/each}
					</Select>
					{#if field}
						{#key field.name}<FieldInput {field} {zone} value={fieldValue ?? undefined} none="nothing" change={(value) => (fieldValue = value)} />{/key}
						<p class="flex gap-2">
							<Button
								kind="main"
								disabled={fieldValue === null}
								onclick={() => change({ fields: { [field.name]: fieldValue } }, `“${field.words}” is ${fieldValue}.`)}>Set</Button
							>
							<Button onclick={() => change({ fields: { [field.name]: null } }, `“${field.words}” taken away.`)}>Take away</Button>
						</p>
					{/if}
				</div>
			</Popup>
		{/if}
		<Popup label="Receipt" plain up disabled={busy} width={300}>
			<p class="mb-2">Are members who read them asked to say that they have?</p>
			<p class="flex flex-wrap gap-2">
				<Button onclick={() => change({ receipt: 'once' }, 'members are asked for a receipt, once.')}>Yes, once</Button>
				<Button onclick={() => change({ receipt: 'each-edition' }, 'members are asked for a receipt of each edition.')}>Yes, for each edition</Button>
				<Button onclick={() => change({ receipt: null }, 'nobody is asked for a receipt.')}>No</Button>
			</p>
		</Popup>
		<Button
			disabled={busy}
			aria-haspopup="dialog"
			onclick={() => {
				doorTrouble = '';
				doorShown = true;
			}}>Door</Button
		>
		<Button
			disabled={busy || many > mostPlaced}
			aria-haspopup="dialog"
			title={many > mostPlaced ? `At most ${mostPlaced} at once` : undefined}
			onclick={() => (placing = true)}>Place on pages</Button
		>
		<Button
			disabled={busy || many > mostKeyed}
			aria-haspopup="dialog"
			title={many > mostKeyed ? `At most ${mostKeyed} at once` : undefined}
			onclick={() => (issuing = true)}>Keys</Button
		>
		<form method="POST" action="/desk/documents.zip" onsubmit={zip}>
			{#each chosenRows.slugs as slug (slug)}<input type="hidden" name="document" value={slug} />{/each}
			<Button type="submit" disabled={busy}>Save as one zip</Button>
		</form>
		<Button disabled={busy} onclick={() => ask({ aside: true }, asideWords)}>Set aside</Button>
	{/if}
	<Button onclick={chooseNone}>Let go</Button>
</div>

<style>
	.bar {
		position: sticky;
		bottom: -16px;
		z-index: 20;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px;
		margin: 10px -18px -16px;
		padding: 10px 18px;
		background: var(--brass-wash);
		border-top: 1px solid var(--brass-bright);
	}
</style>
