<!-- What can be set of an entry of a pocket page: words, icon, days on which it is on show, its address, its place in the order. -->
<script lang="ts">
	import { entryTrouble, type PocketEntry } from '#core/placing/pocket';
	import { soughtFor } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { Button, Input, Moment } from '$lib/ui/parts/controls';

	let {
		entry,
		name,
		zone,
		change,
		move,
		first,
		last,
		takeOut
	}: {
		entry: PocketEntry;
		/** What it is called where it has no words of its own. */
		name: string;
		/** Of the site. */
		zone: string;
		change: (given: Partial<PocketEntry>) => void;
		/** By so many places, down where above 0. */
		move: (by: number) => void;
		first: boolean;
		last: boolean;
		takeOut: () => void;
	} = $props();
	const trouble = $derived(entryTrouble(entry));
	let icons = $state.raw<readonly { name: string; svg: string }[]>([]);
	async function findIcons(word: string) {
		const found = word.trim() ? await soughtFor(call('get /icons', { query: { q: word.trim() } })) : [];
		icons = found?.slice(0, 12) ?? icons;
	}
	/** The word is left as it is: the icon of that name, else the first that was found. */
	async function takeIcon(word: string) {
		await findIcons(word);
		const [first] = icons.filter((icon) => icon.name === word).concat(icons);
		// a press on one of them may have been quicker
		if (first && icons.length) change({ icon: first.name });
		icons = [];
	}
</script>

<div class="more">
	<label>Words <Input value={entry.words ?? ''} maxlength={120} placeholder={name} oninput={(e) => change({ words: e.currentTarget.value })} /></label>
	<label
		>Below it <Input
			value={entry.about ?? ''}
			maxlength={300}
			placeholder={entry.document ? 'its description' : 'nothing'}
			oninput={(e) => change({ about: e.currentTarget.value })}
		/></label
	>
	<label
		>Icon <Input
			value={entry.icon ?? ''}
			placeholder={entry.document ? 'its cover; or a word' : 'a word'}
			maxlength={60}
			oninput={(e) => void findIcons(e.currentTarget.value)}
			onchange={async (e) => {
				const word = e.currentTarget.value.trim();
				if (!word) change({ icon: '' });
				else if (word !== entry.icon) await takeIcon(word);
			}}
		/></label
	>
	{#if icons.length}
		<span class="icons">
			{#each icons as icon (icon.name)}<Button
					kind="pill"
					title={icon.name}
					aria-label="Icon {icon.name}"
					onclick={() => {
						change({ icon: icon.name });
						icons = [];
					}}><img src="data:image/svg+xml,{encodeURIComponent(icon.svg)}" alt="" width="22" height="22" /></Button
				>{/each}
		</span>
	{/if}
	<div class="moment-under">
		On show from <Moment label="On show from" value={entry.from ?? null} {zone} none="at once" change={(from) => change({ from: from ?? '' })} />
	</div>
	<div class="moment-under">
		until <Moment label="On show until" value={entry.until ?? null} near={entry.from} {zone} none="no end" change={(until) => change({ until: until ?? '' })} />
	</div>
	{#if entry.url}<label>Address <Input value={entry.url} onchange={(e) => change({ url: e.currentTarget.value.trim() })} /></label>{/if}
	<span class="flex gap-2">
		<Button onclick={() => move(-1)} disabled={first}>Up</Button>
		<Button onclick={() => move(1)} disabled={last}>Down</Button>
		<Button onclick={takeOut}>Take out</Button>
	</span>
	{#if trouble}<p class="trouble">This entry is not saved yet: {trouble}.</p>{/if}
</div>

<style>
	.more {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(290px, 1fr));
		gap: 10px 14px;
		padding: 10px 14px 14px 36px;
		background: var(--sheet);
	}
	.more label,
	.moment-under {
		display: grid;
		gap: 2px;
		font-size: 13px;
		color: var(--ink-soft);
	}
	.icons {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		gap: 4px;
	}
	.more .trouble {
		grid-column: 1 / -1;
	}
</style>
