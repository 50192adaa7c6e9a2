<!-- A door in one of its four positions, drawn; the word stands beside it. -->
<script lang="ts">
	import type { Position } from '#core/access/door';
	let { position, height = 28 }: { position: Position; height?: number } = $props();
</script>

<svg viewBox="0 0 22 28" {height} width={(height * 22) / 28} aria-hidden="true">
	<path d="M3.5 26.5V11a7.5 7.5 0 0 1 15 0v15.5" fill="none" stroke="currentColor" stroke-width="1.6" />
	<path d="M1 26.7h20" stroke="currentColor" stroke-width="1.8" />
	{#if position === 'shut'}
		<path d="M5.6 26.5V11a5.4 5.4 0 0 1 10.8 0v15.5z" fill="currentColor" />
		<path d="M11 6v20" stroke="var(--sheet)" stroke-width="1" />
	{:else if position === 'keyed'}
		<path d="M5.6 26.5V11a5.4 5.4 0 0 1 10.8 0v15.5z" fill="currentColor" />
		<circle cx="11" cy="14.6" r="2.2" fill="var(--sheet)" />
		<path d="M11 15l1.5 5.2h-3z" fill="var(--sheet)" />
	{:else if position === 'ajar'}
		<path d="M5.6 26.5V11c0-2.6 1.8-4.7 4.2-5.3l2.4 2.6v21z" fill="currentColor" />
	{:else}
		<path d="M7 26.5V11a4 4 0 0 1 8 0v15.5" fill="none" stroke="currentColor" stroke-width=".9" opacity=".55" />
	{/if}
</svg>
