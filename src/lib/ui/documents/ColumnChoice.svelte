<!-- Which columns the table has, and in which order. -->
<script lang="ts">
	import { Button, Checkbox } from '$lib/ui/parts/controls';
	import { refresh } from '$lib/ui/parts/refresh';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { columnNames, columns, keepColumns, type ColumnName } from './columns';

	let { chosen }: { chosen: readonly ColumnName[] } = $props();
	const rest = $derived(columnNames.filter((c) => !chosen.includes(c)));

	function set(next: ColumnName[]) {
		keepColumns(next.length ? next : ['door']);
		void refresh();
	}
	function move(name: ColumnName, by: number) {
		const next = [...chosen];
		const at = next.indexOf(name);
		const to = at + by;
		if (to < 0 || to >= next.length) return;
		[next[at], next[to]] = [next[to]!, next[at]!];
		set(next);
	}
</script>

<Popup label="Columns" plain end width={250}>
	<ul>
		{#each chosen as name, i (name)}
			<li>
				<label><Checkbox checked onchange={() => set(chosen.filter((c) => c !== name))} /> {columns[name].words}</label>
				<Button kind="quiet" aria-label="{columns[name].words}: further left" disabled={i === 0} onclick={() => move(name, -1)}>↑</Button>
				<Button kind="quiet" aria-label="{columns[name].words}: further right" disabled={i === chosen.length - 1} onclick={() => move(name, 1)}>↓</Button>
			</li>
		{/each}
		{#each rest as name (name)}
			<li>
				<label><Checkbox onchange={() => set([...chosen, name])} /> {columns[name].words}</label>
			</li>
		{/each}
	</ul>
</Popup>

<style>
	li {
		display: flex;
		gap: 10px;
		align-items: center;
		padding: 3px 6px;
	}
	label {
		flex: 1;
		display: flex;
		gap: 9px;
		align-items: center;
	}
	li :global(.quiet:disabled) {
		opacity: 0.3;
	}
</style>
