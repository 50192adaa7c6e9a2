<!-- A small line of daily numbers. The number beside it says what counts; this only shows the run of it. -->
<script lang="ts">
	let { values, width = 74, height = 22, label }: { values: readonly number[]; width?: number; height?: number; label: string } = $props();
	const top = $derived(Math.max(3, ...values));
	const points = $derived(
		values.map((v, i) => `${((i * width) / Math.max(1, values.length - 1)).toFixed(1)},${(height - 2 - (v / top) * (height - 4)).toFixed(1)}`).join(' ')
	);
</script>

<svg {width} {height} viewBox="0 0 {width} {height}" role="img" aria-label={label}
	><polyline fill="none" stroke="var(--verdigris)" stroke-width="1.4" {points} /></svg
>
