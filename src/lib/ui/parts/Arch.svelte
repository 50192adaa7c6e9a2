<!-- One station of the passage: outlined while to do, filled when done, brick with a wedge when something is wrong. -->
<script module lang="ts">
	export type ArchState = 'done' | 'to-do' | 'wrong';
</script>

<script lang="ts">
	let { state, size = 19 }: { state: ArchState; size?: number } = $props();
</script>

<svg viewBox="0 0 20 22" width={size} height={(size * 22) / 20} aria-hidden="true">
	{#if state === 'to-do'}
		<path d="M3 21V10a7 7 0 0 1 14 0v11z" fill="none" stroke="var(--edge)" stroke-width="1.5" stroke-dasharray="2.6 2" />
	{:else if state === 'done'}
		<path d="M3 21V10a7 7 0 0 1 14 0v11z" fill="var(--verdigris)" stroke="var(--verdigris)" stroke-width="1.5" />
	{:else}
		<path d="M3 21V10a7 7 0 0 1 14 0v11z" fill="var(--brick-wash)" stroke="var(--brick)" stroke-width="1.7" />
		<path d="M10 7.5l4.2 9H5.8z" fill="var(--brick)" />
	{/if}
</svg>
