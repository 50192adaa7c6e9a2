<!-- What the site keeps of its readers, and what it counts as read through. -->
<script lang="ts">
	import { Radio, Select } from '$lib/ui/parts/controls';
	import { readershipOf, type Nameless, type ReadershipSettings } from '#core/readership/settings';
	let { given, set }: { given: ReadershipSettings; set: (readership: ReadershipSettings) => void } = $props();
	const now = $derived(readershipOf(given));
	const words: Record<Nameless, [string, string]> = {
		cookie: ['A cookie, once they agree', 'Visitors are asked. Who agrees is one reader for 30 days; who does not, for one day.'],
		day: ['A mark for one day', 'Made of half their address, their browser and a key that is thrown away at midnight. Nobody is asked.'],
		nothing: ['Nothing but counts', 'Every reading is counted by itself: readers cannot be told from openings.']
	};
</script>

<fieldset>
	<legend>Of visitors without a name is kept</legend>
	{#each Object.entries(words) as [kind, [title, about]] (kind)}
		<Radio classes={{ label: 'choice' }} name="nameless" value={kind} group={now.nameless} onchange={() => set({ ...given, nameless: kind as Nameless })}
			><span><b>{title}</b><small>{about}</small></span></Radio
		>
	{/each}
	<p class="soft">Who sends “do not track” or Global Privacy Control gets no cookie and is not asked. Addresses are never kept.</p>
</fieldset>
<div class="pair">
	<label
		>Entries are kept for
		<Select value={String(now.months ?? '')} onchange={(e) => set({ ...given, months: e.currentTarget.value ? Number(e.currentTarget.value) : null })}>
			<option value="">as long as the site stands</option>
			{#each [3, 6, 12, 24, 36, 60] as n (n)}<option value={String(n)}>{n} months</option>{/each}
		</Select></label
	>
	<label
		>Read through means
		<Select value={String(now.through)} onchange={(e) => set({ ...given, through: Number(e.currentTarget.value) })}>
			{#each [0.5, 0.75, 0.8, 0.9, 0.95, 1] as n (n)}<option value={String(n)}>{Math.round(n * 100)} % of the pages</option>{/each}
		</Select></label
	>
</div>
<p class="soft">When entries go, the figures by day stay, without names. A member’s own record is given out or erased at /me.</p>

<style>
	fieldset {
		border: 0;
		padding: 0;
		margin: 6px 0 10px;
	}
	legend {
		padding: 0;
		margin-bottom: 4px;
	}
	fieldset :global(.choice) {
		gap: 10px;
		align-items: baseline;
		padding: 4px 0;
	}
	small {
		display: block;
		color: var(--ink-soft);
		font-size: 13px;
	}
	.pair {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 24px;
	}
</style>
