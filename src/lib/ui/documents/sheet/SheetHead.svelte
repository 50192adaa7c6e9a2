<!-- The head of the sheet: cover, title, address, and the words that describe the document; each is saved as it is changed. -->
<script lang="ts">
	import { Button, Input, Moment, Select } from '$lib/ui/parts/controls';
	import { dayText } from '$lib/ui/parts/when';
	import { languages } from '#core/documents/language';
	import type { DocumentView } from '$lib/server/documents/view';
	import CoverChoice from '$lib/ui/documents/CoverChoice.svelte';
	import type { Field } from '#core/documents/fields';
	import type { ReceiptAsks } from '#core/readership/receipt';
	import FieldInput from '$lib/ui/documents/FieldInput.svelte';
	import SavedField from '$lib/ui/documents/SavedField.svelte';
	import TopicField from '$lib/ui/documents/TopicField.svelte';
	import { languageWords } from '$lib/ui/documents/words';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import { refresh } from '$lib/ui/parts/refresh';

	let {
		view,
		folders,
		topics,
		fields,
		staff,
		zone,
		patch,
		goTo
	}: {
		view: DocumentView;
		/** Those that there are. */
		folders: string[];
		topics: string[];
		/** Those of the site. */
		fields: readonly Field[];
		/** Who may be asked to look at it again. */
		staff: readonly { name: string; email: string }[];
		zone: string;
		/** Changes the document, and says so. */
		patch: (change: Record<string, unknown>, words: string) => unknown;
		/** Goes to another sheet: '/' and the document's address. */
		goTo: (sheet: string) => Promise<void>;
	} = $props();
	let choosingCover = $state(false);
	let moving = $state(false);
	let address = $state('');
	let addressTrouble = $state('');

	async function copyAddress() {
		const address = `${location.origin}/d/${view.slug}`;
		try {
			await navigator.clipboard.writeText(address);
			notify(`Copied: ${address}`);
		} catch {
			notify(`The browser did not allow copying. The address is ${address}`, { tone: 'wrong' });
		}
	}

	/** Saves one field as it is typed; the sheet around it follows. */
	const saver = (name: string) => async (text: string) => {
		await call('patch /documents/{slug}', { path: { slug: view.slug }, body: { [name]: text } });
		// the list has no descriptions
		await (name === 'description' ? refresh('document') : refresh());
	};

	function moveAddress(event: SubmitEvent) {
		event.preventDefault();
		const [former, slug] = [view.slug, address];
		void act(
			`The address is now /d/${slug}. /d/${former} leads there for good.`,
			() => call('patch /documents/{slug}', { path: { slug: former }, body: { slug } }),
			({ before }) => call('patch /documents/{slug}', { path: { slug }, body: before }),
			{
				trouble: (words) => (addressTrouble = words),
				show: async (_, undone) => {
					moving = false;
					await goTo(`/${undone ? former : slug}`);
				}
			}
		);
	}

	/** What search engines show of a description: about 155 characters (common practice, no source). */
	const shownBySearch = 155;
	const descriptionHint = (text: string) => {
		const n = [...text].length;
		if (n === 0) return { words: `Search engines show about ${shownBySearch} characters.`, good: false };
		return n <= shownBySearch
			? { words: `${n} of about ${shownBySearch} characters that search engines show`, good: n >= 50 }
			: { words: `${n} characters; search engines cut after about ${shownBySearch}`, good: false };
	};
</script>

<header>
	<Button kind="bare" class="cover" onclick={() => (choosingCover = true)} title="Change the cover">
		<img src="/d/{view.slug}/cover/300.webp?e={view.coverMark}" alt={view.coverAlt || 'Cover'} /><span>Cover…</span>
	</Button>
	<div class="min-w-0">
		{#key view.id}
			<SavedField
				label="Title"
				value={view.title}
				send={saver('title')}
				max={200}
				rows={1}
				large
				refuses={(t) => (t.trim() ? null : 'A document needs a title.')}
			/>
		{/key}
		<p class="soft address">
			<span class="truncate" title={view.slug}>/d/{view.slug}</span>
			<Button kind="quiet" onclick={copyAddress}>Copy</Button>
			<Button
				kind="quiet"
				aria-expanded={moving}
				onclick={() => {
					moving = !moving;
					address = view.slug;
				}}>Change</Button
			>
		</p>
		{#if moving}
			<form class="mt-1 flex gap-2" onsubmit={moveAddress}>
				<Input
					class="min-w-0 grow"
					aria-label="Address"
					bind:value={address}
					pattern="[a-z0-9]+(-[a-z0-9]+)*"
					maxlength={80}
					required
					title="Small letters, digits and single hyphens"
				/>
				<Button type="submit" kind="main">Change</Button>
			</form>
			<p class="soft">The old address leads to the new one for good.{view.addresses.length ? ` So do: ${view.addresses.join(', ')}.` : ''}</p>
			{#if addressTrouble}<p class="trouble" role="alert">{addressTrouble}</p>{/if}
		{/if}
	</div>
</header>
{#key view.id}
	<div class="words">
		<SavedField
			label="Description"
			value={view.description}
			send={saver('description')}
			max={4000}
			rows={2}
			placeholder="What it is, in a sentence or two"
			hint={descriptionHint}
		/>
		<div class="pair">
			<SavedField label="Folder" value={view.folder} send={saver('folder')} max={200} list={folders} placeholder="None" />
			<label class="soft language"
				>Language
				<Select value={view.ownLanguage ?? ''} onchange={(e) => patch({ language: e.currentTarget.value || null }, 'language set: find goes by its words.')}>
					<option value="">{view.language && !view.ownLanguage ? `${languageWords(view.language)} (found)` : 'As found'}</option>
					{#each languages as tag (tag)}<option value={tag}>{languageWords(tag)}</option>{/each}
				</Select></label
			>
		</div>
		{#each fields as field (field.name)}
			<div class="soft language">
				{field.words}
				<FieldInput
					{field}
					{zone}
					value={view.fields[field.name]}
					change={(value) => patch({ fields: { [field.name]: value } }, `“${field.words}” ${value === null ? 'taken away' : 'set'}.`)}
				/>
			</div>
		{/each}
		<div class="soft language review">
			Look at it again by
			<Moment
				value={view.review?.on ?? null}
				dayOnly
				label="Look at it again by"
				none="never"
				{zone}
				change={(on) =>
					patch(
						{ review: on === null ? null : { on, by: view.review?.by ?? null } },
						on === null ? 'it is not to be looked at again.' : `to be looked at again by ${dayText(on, zone)}.`
					)}
			/>
			{#if view.review}
				<Select
					aria-label="Who looks at it again"
					value={view.review.by ?? ''}
					onchange={(e) => view.review && patch({ review: { on: view.review.on, by: e.currentTarget.value || null } }, 'who looks at it again is set.')}
				>
					<option value="">anybody of the staff</option>
					{#each staff as person (person.email)}<option value={person.email}>{person.name}</option>{/each}
				</Select>
			{/if}
		</div>
		<label class="soft language"
			>Receipt asked of members
			<Select
				value={view.receipt ?? ''}
				onchange={(e) =>
					patch(
						{ receipt: (e.currentTarget.value || null) as ReceiptAsks | null },
						e.currentTarget.value ? 'members who read it are asked to say that they have.' : 'nobody is asked to say that they have read it.'
					)}
			>
				<option value="">no</option>
				<option value="once">yes, once</option>
				<option value="each-edition">yes, for each edition</option>
			</Select></label
		>
		<TopicField topics={view.topics} all={topics} change={(topics, words) => patch({ topics }, words)} />
	</div>
{/key}

<CoverChoice
	bind:open={choosingCover}
	slug={view.slug}
	pages={view.pages}
	edition={view.edition}
	cover={view.cover}
	alt={view.coverAlt}
	sendAlt={saver('coverAlt')}
/>

<style>
	header {
		display: flex;
		gap: 14px;
		align-items: flex-start;
		padding-right: 18px;
	}
	header > div {
		flex: 1;
	}
	header :global(.cover) {
		flex: none;
		cursor: pointer;
		text-align: center;
		font-size: 12.5px;
		color: var(--verdigris);
	}
	.words {
		display: grid;
		gap: 8px;
		margin-top: 8px;
	}
	.pair {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 10px;
	}
	.language {
		display: grid;
		gap: 2px;
		font-size: 12.5px;
		align-content: start;
	}
	.language :global(.field) {
		padding-top: 0;
		padding-bottom: 0;
	}
	header img {
		width: 74px;
		max-height: 112px;
		object-fit: contain;
		object-position: top;
		border: 1px solid var(--line);
		background: #fff;
		flex: none;
	}
	header p {
		margin-top: 5px;
		font-size: 13px;
	}
	.address {
		display: flex;
		gap: 8px;
	}
	.address :global(.quiet) {
		flex: none;
	}
</style>
