<!-- The sheet: in, door, placed, read. -->
<script lang="ts">
	import { goWith, refresh } from '$lib/ui/parts/refresh';
	import { page } from '$app/state';
	import Mismatch from '$lib/ui/placing/Mismatch.svelte';
	import Outside from '$lib/ui/placing/Outside.svelte';
	import { mendMismatch } from '$lib/ui/placing/writer.svelte';
	import type { DoorChange } from '#core/access/door';
	import { counted } from '#core/access/reach';
	import { sizeWords } from '#core/documents/size';
	import { restorableUntil } from '#core/documents/aside';
	import { languages } from '#core/documents/language';
	import { roomSettings } from '#core/reading/settings';
	import { conditionWords } from '#core/intake/condition';
	import { formWords, pressWords, type Form, type Press } from '#core/placing/placement';
	import Keys from '$lib/ui/access/Keys.svelte';
	import TryDoor from '$lib/ui/access/TryDoor.svelte';
	import DoorPicker from '$lib/ui/access/DoorPicker.svelte';
	import CoverChoice from '$lib/ui/documents/CoverChoice.svelte';
	import Editions from '$lib/ui/documents/Editions.svelte';
	import FactList from '$lib/ui/documents/FactList.svelte';
	import Findings from '$lib/ui/documents/Findings.svelte';
	import SavedField from '$lib/ui/documents/SavedField.svelte';
	import Source from '$lib/ui/documents/Source.svelte';
	import TopicField from '$lib/ui/documents/TopicField.svelte';
	import ReadingFields from '$lib/ui/reading/ReadingFields.svelte';
	import { languageWords } from '$lib/ui/documents/words';
	import Arch from '$lib/ui/parts/Arch.svelte';
	import BreakingQuestion from '$lib/ui/documents/BreakingQuestion.svelte';
	import { askFirst, carryOut, type Answer, type Breaking, type Question } from '$lib/ui/documents/breaking';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import { isTyping } from '$lib/ui/parts/shortcuts';
	import { dayText, timeText } from '$lib/ui/parts/when';
	import { notWholeWords } from '$lib/ui/readership/words';

	let { data } = $props();
	const view = $derived(data.view);
	const door = $derived(view.door);
	const doorState = $derived(door.inForce === 'shut' ? 'to-do' : 'done');
	let choosingCover = $state(false);
	let trying = $state(false);
	let issuing = $state(false);
	function keys(event: KeyboardEvent) {
		if (isTyping(event) || event.defaultPrevented) return;
		if (event.key === 't') trying = true;
		else if (event.key === 'k') issuing = true;
		else return;
		event.preventDefault();
		document.getElementById(event.key === 't' ? 'try-door' : 'issue-key')?.scrollIntoView({ block: 'center' });
	}
	let moving = $state(false);
	let address = $state('');
	let addressTrouble = $state('');

	/** Changes the document; what was before is the server's to know. */
	const patch = (change: Record<string, unknown>, words: string) => {
		const { slug } = view;
		return act(
			words,
			() => call<{ before: unknown }>('PATCH', `/documents/${slug}`, change),
			({ before }) => call('PATCH', `/documents/${slug}`, before)
		);
	};

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
		await call('PATCH', `/documents/${view.slug}`, { [name]: text });
		// the list has no descriptions
		await (name === 'description' ? refresh('document') : refresh());
	};

	/** Goes to another sheet, or to none, with the list as it is by then. */
	const goTo = (sheet: string) => goWith(`/desk/documents${sheet}${page.url.search}`, ['documents', 'document'], { noScroll: true });
	function moveAddress(event: SubmitEvent) {
		event.preventDefault();
		const [former, slug] = [view.slug, address];
		void act(
			`The address is now /d/${slug}. /d/${former} leads there for good.`,
			() => call<{ before: unknown }>('PATCH', `/documents/${former}`, { slug }),
			({ before }) => call('PATCH', `/documents/${slug}`, before),
			{
				trouble: (words) => (addressTrouble = words),
				show: async (_, undone) => {
					moving = false;
					await goTo(`/${undone ? former : slug}`);
				}
			}
		);
	}

	let question = $state<Question | null>(null);
	/** Changes what readers may meet on pages, asked about first; `final` where placements go too, which undoing does not bring back. */
	function press(change: Breaking, work: () => Promise<Answer>, final = false) {
		const { slug, title } = view;
		const aside = 'aside' in change;
		return act(
			({ asks }) => (asks ? '' : aside ? `“${title}” is set aside. It can be restored for 30 days.` : 'Door set.'),
			work,
			final ? null : ({ undo }) => call('POST', '/bulk/undo', { undo }),
			{
				show: async ({ asks }, undone) => {
					if (asks) question = { documents: [slug], change, places: asks };
					else if (aside) await goTo(undone ? `/${slug}` : '');
					else await refresh();
				}
			}
		);
	}
	const ask = (change: Breaking) => press(change, () => askFirst([view.slug], change));
	const changeDoor = (door: DoorChange) => ask({ door });
	const restore = () => act('Restored, with its door, its placements and its history.', () => call('POST', `/documents/${view.slug}/restore`));

	/** What search engines show of a description: about 155 characters (common practice, no source). */
	const shownBySearch = 155;
	const descriptionHint = (text: string) => {
		const n = [...text].length;
		if (n === 0) return { words: `Search engines show about ${shownBySearch} characters.`, good: false };
		return n <= shownBySearch
			? { words: `${n} of about ${shownBySearch} characters that search engines show`, good: n >= 50 }
			: { words: `${n} characters; search engines cut after about ${shownBySearch}`, good: false };
	};

	const checking = $derived(view.condition.status === 'checking' || view.editions.some((e) => e.pending));
	// a check goes on: look again until it is done, and then at the list
	$effect(() => {
		if (!checking) return;
		const clock = setInterval(async () => {
			await refresh('document');
			if (!checking) await refresh('documents');
		}, 1000);
		return () => clearInterval(clock);
	});
	const peak = $derived(Math.max(1, ...data.report.bars.map((d) => d.openings)));
	const readText = $derived(data.report.answer.map((p) => p.text).join(''));
	const kindWords: Record<string, string> = {
		opened: 'opened it',
		saved: 'saved it',
		'turned-away': 'was turned away',
		'key-used': 'used their key',
		printed: 'printed it',
		knocked: 'knocked'
	};
</script>

<svelte:window onkeydown={keys} />
<svelte:head><title>{view.title}, {data.site.name}</title></svelte:head>

<BreakingQuestion bind:question go={(asked, takeOut) => void press(asked.change, () => carryOut(asked, takeOut), takeOut)} />
<aside class="sheet" aria-label={view.title} data-edition-of={view.slug} data-edition-title={view.title}>
	<a class="close" href="/desk/documents{page.url.search}" aria-label="Close the sheet" data-sveltekit-noscroll>×</a>
	{#if view.setAsideAt}
		<p class="trouble mb-3">
			Set aside {dayText(view.setAsideAt, data.site.zone)}. Readers find nothing here. It can be restored until {dayText(
				new Date(restorableUntil(Date.parse(view.setAsideAt))).toISOString(),
				data.site.zone
			)}. <button class="btn ml-2" onclick={restore}>Restore</button>
		</p>
	{/if}
	<header>
		<button class="cover" onclick={() => (choosingCover = true)} title="Change the cover">
			<img src="/d/{view.slug}/cover/300.webp?e={view.coverMark}" alt={view.coverAlt || 'Cover'} /><span>Cover…</span>
		</button>
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
				<button class="quiet" onclick={copyAddress}>Copy</button>
				<button
					class="quiet"
					aria-expanded={moving}
					onclick={() => {
						moving = !moving;
						address = view.slug;
					}}>Change</button
				>
			</p>
			{#if moving}
				<form class="mt-1 flex gap-2" onsubmit={moveAddress}>
					<input
						class="field min-w-0 grow"
						aria-label="Address"
						bind:value={address}
						pattern="[a-z0-9]+(-[a-z0-9]+)*"
						maxlength="80"
						required
						title="Small letters, digits and single hyphens"
					/>
					<button class="btn main">Change</button>
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
				<SavedField label="Folder" value={view.folder} send={saver('folder')} max={200} list={data.folders} placeholder="None" />
				<label class="soft language"
					>Language
					<select
						class="field"
						value={view.ownLanguage ?? ''}
						onchange={(e) => patch({ language: e.currentTarget.value || null }, 'Language set: find goes by its words.')}
					>
						<option value="">{view.language && !view.ownLanguage ? `${languageWords(view.language)} (found)` : 'As found'}</option>
						{#each languages as tag (tag)}<option value={tag}>{languageWords(tag)}</option>{/each}
					</select></label
				>
			</div>
			<TopicField topics={view.topics} all={data.topics} change={(topics, words) => patch({ topics }, words)} />
		</div>
	{/key}

	<section class="station" id="in" tabindex="-1">
		<Arch state={view.passage.in} size={30} />
		<div>
			<h3>
				In <span
					>{view.edition === 1 ? 'first edition' : `edition ${view.edition}`}, {dayText(view.editionAt, data.site.zone)}{view.createdBy
						? `, by ${view.createdBy}`
						: ''}</span
				>{#if view.pages}<a href="/d/{view.slug}/read?from=desk" target="_blank" rel="noopener">Read it</a>{/if}
			</h3>
			<p>
				{view.pages ? `${counted(view.pages, 'page', 'pages')} ${view.paper}, ` : ''}{sizeWords(view.bytes)}.
				<span class:checking={view.condition.status === 'checking'}>{conditionWords[view.condition.status]}</span>.{view.facts.text === 'yes' &&
				view.condition.status !== 'checking'
					? ` With text${view.language ? ` in ${languageWords(view.language.split('-')[0]!)}` : ''}${view.facts.tagged ? ', tagged' : ''}.`
					: ''}
			</p>
			<Findings slug={view.slug} findings={view.condition.findings} edition={view.edition} />
			{#if view.source}<Source slug={view.slug} source={view.source} zone={data.site.zone} />{/if}
			<Editions slug={view.slug} editions={view.editions} zone={data.site.zone} maxUpload={data.maxUpload} />
			<FactList facts={view.facts} fileName={view.fileName} sha256={view.sha256} zone={data.site.zone} language={view.language} />
		</div>
	</section>

	<section class="station" id="door" tabindex="-1">
		<Arch state={doorState} size={30} />
		<div>
			<h3>Door <span>set {door.changedBy ? `by ${door.changedBy}, ` : ''}{dayText(door.changedAt, data.site.zone)}</span></h3>
			<DoorPicker {door} groups={data.groups} allMembers={data.allMembers} zone={data.site.zone} pages={data.pages} change={changeDoor} />
			{#key view.id}
				<TryDoor slug={view.slug} groups={data.groups} keys={data.keys} zone={data.site.zone} door={door.changedAt} bind:open={trying} />
				<Keys slug={view.slug} keys={data.keys} position={door.inForce} zone={data.site.zone} bind:open={issuing} />
			{/key}
		</div>
	</section>

	<section class="station" id="placed" tabindex="-1">
		<Arch state={data.mismatches.some((m) => !m.intended) ? 'wrong' : view.passage.placed} size={30} />
		<div>
			<h3>
				Placed <span>{view.placements ? `in ${counted(view.placements, 'place', 'places')}` : 'nowhere yet'}</span><a href="/desk/pages?place={view.slug}"
					>Place</a
				>
			</h3>
			{#if view.placedOn.length}
				<ul>
					{#each view.placedOn as place (place.id + place.page)}
						<li>
							<a href="/desk/pages/{place.page}">{place.title}</a>, {place.form === 'list'
								? 'listed'
								: place.form === 'entry'
									? 'an entry'
									: `as a ${formWords[place.form as Form].toLowerCase()}`}{place.form === 'list' || place.form === 'entry' || place.form === 'frame'
								? ''
								: `, press: ${pressWords[place.press as Press].toLowerCase()}`}{place.published ? '' : ' (draft)'}
						</li>
					{/each}
				</ul>
			{:else}<p class="soft">Put it on a page as a text link, a button, a cover, a card or a frame to read in.</p>{/if}
			{#each data.mismatches as found (found.kind + found.placement)}
				<div class="mt-2">
					<Mismatch {found} zone={data.site.zone} names="page" mend={(remedy, why) => void mendMismatch(found, remedy, why, refresh)} />
				</div>
			{/each}
			{#key view.slug}
				<Outside
					origin={data.origin}
					slug={view.slug}
					title={view.title}
					ratio={view.ratio ?? Math.SQRT2}
					maySave={door.allow.save}
					open={door.inForce === 'open' || door.inForce === 'ajar'}
					defaults={data.placing}
					framers={data.framers}
				/>
			{/key}
		</div>
	</section>

	<section class="station" id="read" tabindex="-1">
		<Arch state={view.passage.read} size={30} />
		<div>
			<h3>Read <span>in 30 days</span><a href="/desk/readership/{view.slug}">Readership</a></h3>
			<details class="how">
				<summary>How it is read{view.reading ? ', set here' : ''}</summary>
				<ReadingFields
					own={view.reading ?? {}}
					usual={roomSettings('window', [data.siteReading])}
					usualWords="as the site"
					set={(reading) => void patch({ reading }, 'Reading room set.')}
				/>
			</details>
			<svg class="bars" viewBox="0 0 370 54" role="img" aria-label="Openings a day over 30 days" preserveAspectRatio="none">
				{#each data.report.bars as d, i (d.day)}<rect
						x={i * 12.3}
						y={53 - (d.openings / peak) * 50}
						width="9.4"
						height={(d.openings / peak) * 50}
						fill="var(--verdigris)"><title>{d.day}: {d.openings}</title></rect
					>{/each}
				<path d="M0 53.5h370" stroke="var(--line)" />
			</svg>
			<p>{readText}</p>
			{#if !data.report.whole}<p class="soft" role="status">{notWholeWords}</p>{/if}
			{#if data.report.staff.openings || data.report.staff.saves}<p class="soft">
					Staff, apart: {counted(data.report.staff.openings, 'opening', 'openings')}{data.report.staff.saves
						? `, ${counted(data.report.staff.saves, 'copy', 'copies')}`
						: ''}.
				</p>{/if}
			{#if data.recent.length}
				<ul class="recent">
					{#each data.recent as item, i (i)}
						<li>
							<span class="truncate"
								>{item.who.name ?? 'A visitor'}
								{kindWords[item.kind]}{item.source.title ? `, from ${item.source.title}` : item.source.site ? `, from ${item.source.site}` : ''}</span
							><time class="soft" datetime={item.at}>{timeText(item.at, data.site.zone)}</time>
						</li>
					{/each}
				</ul>
			{/if}
		</div>
	</section>
	{#if !view.setAsideAt}<p class="end"><button class="quiet" onclick={() => ask({ aside: true })}>Set this document aside</button></p>{/if}
</aside>

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
	.how {
		margin: 8px 0;
	}
	.how summary {
		cursor: pointer;
		min-height: 28px;
		align-content: center;
	}
	.sheet {
		background: var(--sheet);
		border-left: 1px solid var(--line);
		padding: 16px 20px 28px;
		overflow-y: auto;
		position: relative;
	}
	.close {
		position: absolute;
		right: 12px;
		top: 8px;
		font-size: 20px;
		text-decoration: none;
		color: var(--ink-soft);
		padding: 2px 8px;
	}
	header {
		display: flex;
		gap: 14px;
		align-items: flex-start;
		padding-right: 18px;
	}
	header > div {
		flex: 1;
	}
	.cover {
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
	.language .field {
		padding-top: 0;
		padding-bottom: 0;
	}
	.checking {
		color: var(--brass);
	}
	.end {
		margin-top: 18px;
		padding-top: 10px;
		border-top: 1px solid var(--line);
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
	.address .quiet {
		flex: none;
	}
	.station {
		display: grid;
		grid-template-columns: 34px minmax(0, 1fr);
		gap: 0 12px;
		position: relative;
		padding-top: 13px;
		outline-offset: 4px;
	}
	.station > :global(svg) {
		position: relative;
		z-index: 1;
		background: var(--sheet);
	}
	.station::before {
		content: '';
		position: absolute;
		left: 14px;
		top: 0;
		bottom: 0;
		border-left: 2px solid var(--line);
	}
	.station:last-child::before {
		bottom: auto;
		height: 20px;
	}
	h3 {
		font-size: 15.5px;
		display: flex;
		align-items: baseline;
		gap: 8px;
	}
	h3 span {
		font: 400 12.5px var(--body);
		color: var(--ink-soft);
	}
	h3 a {
		margin-left: auto;
		font: 500 13px var(--body);
		text-decoration: none;
		white-space: nowrap;
	}
	.station p {
		margin-top: 3px;
	}
	.station ul {
		margin-top: 3px;
	}
	.bars {
		width: 100%;
		height: 54px;
		background: none;
		margin-top: 4px;
	}
	.recent {
		margin-top: 6px;
		font-size: 13px;
	}
	.recent li {
		display: flex;
		gap: 10px;
		justify-content: space-between;
		padding: 2px 0;
	}
	.recent time {
		white-space: nowrap;
	}
	@media (max-width: 1000px) {
		.sheet {
			border-left: 0;
		}
	}
</style>
