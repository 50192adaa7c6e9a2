<!-- A run of arches: the band's drawing where the site has no picture of its own. -->
<script lang="ts">
	/** Where each stands, in the drawing's own px. */
	const feet = [0, 70, 140, 210, 280];
</script>

<svg class="run" viewBox="0 0 352 92" aria-hidden="true" preserveAspectRatio="xMaxYMax meet">
	{#each feet as foot (foot)}<path d="M{foot + 6} 92V46a29 29 0 0 1 58 0v46M{foot + 15} 92V47a20 20 0 0 1 40 0v45" />{/each}
</svg>

<style>
	.run {
		position: absolute;
		inset-block-end: 0;
		inset-inline-end: max(var(--margin), calc((100% - 1120px) / 2));
		height: min(120px, 70%);
		width: auto;
		fill: none;
		stroke: var(--band-line);
		stroke-width: 1.4;
	}
	/* beside the words, never behind them */
	@media (max-width: 1099px) {
		.run {
			display: none;
		}
	}
</style>
