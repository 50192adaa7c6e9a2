<!-- What is set of a page besides what stands on it: its path, its place in the navigation, when it goes out, what it was before. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { layoutWords } from '#core/placing/content';
	import { isLanguage, languageNames, languages } from '#core/words/words';
	import type { RevisionLine } from '$lib/server/placing/views';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { Button, Checkbox, Input, Moment, Select } from '$lib/ui/parts/controls';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { refresh } from '$lib/ui/parts/refresh';
	import { dayText } from '$lib/ui/parts/when';
	import type { Writer } from './writer.svelte';

	let { writer, revisions, zone, anew }: { writer: Writer; revisions: readonly RevisionLine[]; zone: string; anew: () => Promise<void> } = $props();
	let later = $state<string | null>(null);
	let moreOpen = $state(false);
	let pathGiven = $state(untrack(() => writer.path));

	async function goBack(number: number) {
		if (!(await writer.save())) return;
		await act('', () => call('post /pages/{path}/revisions', { path: { path: writer.path }, body: { number } }), null, { show: anew });
	}
	async function setAside() {
		await writer.save();
		const { path, title } = writer;
		await act(
			`“${title}” is set aside.`,
			() => call('delete /pages/{path}', { path: { path } }),
			() => call('post /pages/{path}/restore', { path: { path } }),
			{ show: (_, undone) => (undone ? refresh() : goto('/desk/pages')) }
		);
	}
	function setPath() {
		const path = pathGiven.trim().toLowerCase();
		writer.path = path.startsWith('/') ? path : `/${path}`;
		writer.touch();
	}
</script>

<Popup label="More" end plain width={320} bind:open={moreOpen}>
	<div class="more">
		<label>Path <Input bind:value={pathGiven} onchange={setPath} maxlength={200} /></label>
		<label class="check"><Checkbox bind:checked={writer.inNavigation} onchange={writer.touch} /> in the navigation</label>
		{#if writer.inNavigation}<label>Called <Input bind:value={writer.label} oninput={writer.touch} maxlength={30} placeholder={writer.title} /></label>{/if}
		<label
			>Readers are spoken to in
			<Select
				value={writer.language ?? ''}
				onchange={(e) => {
					writer.language = isLanguage(e.currentTarget.value) ? e.currentTarget.value : null;
					writer.touch();
				}}
			>
				<option value="">the site’s language</option>
				{#each languages as language (language)}<option value={language}>{languageNames[language]}</option>{/each}
			</Select></label
		>
		<form
			onsubmit={(e) => {
				e.preventDefault();
				moreOpen = false;
				if (later) void writer.publish({ at: later });
			}}
		>
			<div class="moment-under">
				Publish at
				<Moment label="Publish at" value={later} {zone} none="not set" usual="09:00" required change={(at) => (later = at)} />
			</div>
			<Button type="submit">Set the time</Button>
			{#if writer.publishAt}<Button onclick={writer.callOff}>Call it off</Button>{/if}
		</form>
		<a class="quiet" href="/desk/pages?like={encodeURIComponent(writer.path)}">Begin a page like this one</a>
		{#if revisions.length}
			<p class="soft">Published before</p>
			<ul>
				{#each revisions.slice(0, 8) as revision (revision.number)}
					<li>
						<span>{revision.number}. {dayText(revision.publishedAt, zone)}{revision.inForce ? ', out now' : ''}<small>{revision.publishedBy ?? ''}</small></span
						>
						<a href="/desk/pages/{writer.id}/revisions?from={revision.number}">Compare</a>
						<Button kind="quiet" onclick={() => goBack(revision.number)}>Go back to it</Button>
					</li>
				{/each}
			</ul>
		{/if}
		<p class="flex gap-2">
			{#if writer.publishedAt}<Button onclick={() => void writer.takeDown()}>Take down</Button>{/if}
			<Button onclick={setAside}>Set aside</Button>
		</p>
		<p class="soft">{layoutWords[writer.layout]}</p>
	</div>
</Popup>

<style>
	.more {
		display: grid;
		gap: 10px;
	}
	.more label:not(.check),
	.moment-under {
		display: grid;
		gap: 2px;
		font-size: 13px;
		color: var(--ink-soft);
	}
	.more .check {
		display: flex;
		gap: 6px;
		align-items: center;
	}
	.more form {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
		align-items: end;
		border-top: 1px solid var(--line);
		border-bottom: 1px solid var(--line);
		padding: 8px 0;
	}
	.more li {
		display: flex;
		gap: 10px;
		align-items: baseline;
		padding: 3px 0;
	}
	.more li span {
		flex: 1;
	}
	.more small {
		display: block;
		color: var(--ink-soft);
	}
</style>
