<!-- The four positions of a door, one of which is chosen. -->
<script lang="ts" module>
	import type { Position } from '#core/access/door';

	export const positionWords: Record<Position, string> = { shut: 'Shut', keyed: 'Keyed', ajar: 'Ajar', open: 'Open' };
	export const positionMeans: Record<Position, string> = {
		shut: 'Staff only',
		keyed: 'Groups, all members or people you name',
		ajar: 'Whoever has the address; not listed',
		open: 'Everyone'
	};
</script>

<script lang="ts">
	import { positions } from '#core/access/door';
	import { Radio } from '$lib/ui/parts/controls';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';

	let { label, chosen, choose }: { label: string; chosen: Position | undefined; choose: (position: Position) => void } = $props();
	const name = $props.id();
</script>

<div class="pick" role="radiogroup" aria-label={label}>
	{#each positions as position (position)}
		<Radio
			custom
			classes={{ label: { on: chosen === position } }}
			title={positionMeans[position]}
			{name}
			value={position}
			group={chosen}
			onchange={() => choose(position)}><DoorMark {position} height={34} />{positionWords[position]}</Radio
		>
	{/each}
</div>

<style>
	.pick {
		display: grid;
		grid-template-columns: repeat(4, 1fr);
		gap: 6px;
		margin: 8px 0;
	}
	.pick :global(label) {
		display: block;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		padding: 7px 4px 5px;
		text-align: center;
		font-weight: 600;
		background: var(--sheet);
		cursor: pointer;
	}
	.pick :global(svg) {
		display: block;
		margin: 0 auto 3px;
	}
	.pick :global(label.on) {
		border: 2px solid var(--brass-bright);
		background: var(--brass-wash);
		padding: 6px 3px 4px;
		--sheet: var(--brass-wash);
	}
	.pick :global(label:focus-within) {
		outline: 2px solid var(--brass-bright);
		outline-offset: 2px;
	}
</style>
