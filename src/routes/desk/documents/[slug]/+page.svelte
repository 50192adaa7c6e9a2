<!-- The sheet: in, door, placed, read. -->
<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import type { DoorChange } from '#core/access/door';
	import { counted } from '#core/access/reach';
	import { sizeWords } from '#core/documents/size';
	import { conditionWords } from '#core/intake/condition';
	import { formWords, pressWords, type Form, type Press } from '#core/placing/placement';
	import DoorPicker from '$lib/ui/access/DoorPicker.svelte';
	import Arch from '$lib/ui/parts/Arch.svelte';
	import { call, ApiTrouble } from '$lib/ui/parts/api';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import { dayText, timeText } from '$lib/ui/parts/when';

	let { data } = $props();
	const view = $derived(data.view);
	const door = $derived(view.door);
	const doorState = $derived(door.inForce === 'shut' ? 'to-do' : 'done');
	let editing = $state(false);

	async function patch(change: Record<string, unknown>, words: string, undo?: Record<string, unknown>) {
		const slug = view.slug;
		try {
			await call('PATCH', `/documents/${slug}`, change);
			await invalidateAll();
			notify(words, { undo: undo && (() => patch(undo, 'Put back as it was.')) });
		} catch (error) {
			notify(error instanceof ApiTrouble ? error.message : 'That did not work.', { tone: 'wrong' });
			await invalidateAll();
		}
	}

	/** Sends a change of the door; undo sends back what it changed. */
	function changeDoor(change: DoorChange) {
		const before: DoorChange = {};
		if (change.position !== undefined) before.position = door.position;
		if (change.allMembers !== undefined) before.allMembers = door.allMembers;
		if (change.groups) before.groups = door.groups.map((g) => g.slug);
		if (change.people) before.people = door.people.map((p) => p.email);
		if (change.from !== undefined) before.from = door.from;
		if (change.until !== undefined) before.until = door.until;
		if (change.allow) before.allow = { ...door.allow };
		if (change.listed !== undefined) before.listed = door.listed;
		if (change.follows !== undefined) before.follows = door.follows?.path ?? null;
		void patch({ door: change }, 'Door set.', { door: before });
	}

	async function copyAddress() {
		const address = `${location.origin}/d/${view.slug}`;
		try {
			await navigator.clipboard.writeText(address);
			notify(`Copied: ${address}`);
		} catch {
			notify(`The browser did not allow copying. The address is ${address}`, { tone: 'wrong' });
		}
	}

	function saveWords(event: SubmitEvent) {
		event.preventDefault();
		const form = new FormData(event.currentTarget as HTMLFormElement);
		editing = false;
		void patch({ title: String(form.get('title')), description: String(form.get('description')) }, 'Saved.', {
			title: view.title,
			description: view.description
		});
	}
	const peak = $derived(Math.max(1, ...data.report.days.map((d) => d.openings)));
	const readText = $derived(data.report.answer.map((p) => p.text).join(''));
	const kindWords: Record<string, string> = { opened: 'opened it', saved: 'saved it', 'turned-away': 'was turned away' };
</script>

<svelte:head><title>{view.title}, {data.site.name}</title></svelte:head>

<aside class="sheet" aria-label={view.title}>
	<a class="close" href="/desk/documents{page.url.search}" aria-label="Close the sheet" data-sveltekit-noscroll>×</a>
	<header>
		<img src="/d/{view.slug}/cover/300.webp?e={view.edition}" alt="Cover" />
		<div class="min-w-0">
			{#if editing}
				<form onsubmit={saveWords} class="flex flex-col gap-2">
					<input class="field" name="title" value={view.title} aria-label="Title" required maxlength="200" />
					<textarea class="field" name="description" rows="3" aria-label="Description" placeholder="What it is, in a sentence">{view.description}</textarea>
					<span class="flex gap-2"
						><button class="btn main">Save</button><button type="button" class="btn" onclick={() => (editing = false)}>Leave as it was</button></span
					>
				</form>
			{:else}
				<h2>{view.title}</h2>
				<p class="soft address">
					<span class="truncate" title={view.slug}>{view.slug}</span> <button class="quiet" onclick={copyAddress}>Copy address</button>
				</p>
				<p class="soft">{view.description || 'No description yet.'} <button class="quiet" onclick={() => (editing = true)}>Change words</button></p>
			{/if}
		</div>
	</header>

	<section class="station" id="in" tabindex="-1">
		<Arch state={view.passage.in} size={30} />
		<div>
			<h3>
				In <span
					>{view.edition === 1 ? 'first edition' : `edition ${view.edition}`}, {dayText(view.editionAt, data.site.zone)}{view.createdBy
						? `, by ${view.createdBy}`
						: ''}</span
				><a href="/d/{view.slug}/read?from=desk" target="_blank" rel="noopener">Read it</a>
			</h3>
			<p>
				{counted(view.pages, 'page', 'pages')}
				{view.paper}, {sizeWords(view.bytes)}. {conditionWords[view.condition.status]}.{view.facts.hasText
					? ` With text${view.facts.language ? ` in ${new Intl.DisplayNames('en', { type: 'language' }).of(view.facts.language)}` : ''}${view.facts.tagged ? ', tagged' : ''}.`
					: ''}
			</p>
			<p class="soft truncate" title={view.fileName}>{view.fileName}</p>
			{#each view.condition.findings as finding (finding.code)}<p class="finding">{finding.text}</p>{/each}
		</div>
	</section>

	<section class="station" id="door" tabindex="-1">
		<Arch state={doorState} size={30} />
		<div>
			<h3>Door <span>set {door.changedBy ? `by ${door.changedBy}, ` : ''}{dayText(door.changedAt, data.site.zone)}</span></h3>
			<DoorPicker {door} groups={data.groups} allMembers={data.allMembers} zone={data.site.zone} pages={data.pages} change={changeDoor} />
		</div>
	</section>

	<section class="station" id="placed" tabindex="-1">
		<Arch state={view.passage.placed} size={30} />
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
							<a href="/desk/pages/{place.page}">{place.title}</a>, as a {formWords[place.form as Form].toLowerCase()}, press: {pressWords[
								place.press as Press
							].toLowerCase()}{place.published ? '' : ' (draft)'}
						</li>
					{/each}
				</ul>
			{:else}<p class="soft">Put it on a page as a text link, a button or a cover.</p>{/if}
		</div>
	</section>

	<section class="station" id="read" tabindex="-1">
		<Arch state={view.passage.read} size={30} />
		<div>
			<h3>Read <span>in 30 days</span><a href="/desk/readership/{view.slug}">Readership</a></h3>
			<svg class="bars" viewBox="0 0 370 54" role="img" aria-label="Openings a day over 30 days" preserveAspectRatio="none">
				{#each data.report.days as d, i (d.day)}<rect
						x={i * 12.3}
						y={53 - (d.openings / peak) * 50}
						width="9.4"
						height={(d.openings / peak) * 50}
						fill="var(--verdigris)"><title>{d.day}: {d.openings}</title></rect
					>{/each}
				<path d="M0 53.5h370" stroke="var(--line)" />
			</svg>
			<p>{readText}</p>
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
</aside>

<style>
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
	header img {
		width: 74px;
		max-height: 112px;
		object-fit: contain;
		object-position: top;
		border: 1px solid var(--line);
		background: #fff;
		flex: none;
	}
	h2 {
		font-size: 20px;
		line-height: 1.22;
		overflow-wrap: anywhere;
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
	.finding {
		background: var(--brass-wash);
		color: var(--brass);
		padding: 5px 9px;
		border-radius: var(--corner);
		font-size: 13px;
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
