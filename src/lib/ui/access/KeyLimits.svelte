<!-- What a key is good for: until when, how often, and whether it saves and prints. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { Checkbox, Input, Moment } from '$lib/ui/parts/controls';

	let {
		until = $bindable(),
		openings = $bindable(),
		save = $bindable(),
		print = $bindable(),
		zone,
		more,
		children
	}: {
		/** A day or an instant; '' for no end. */
		until: string;
		/** Null for any number. */
		openings: number | null;
		save: boolean;
		print: boolean;
		zone: string;
		/** Another field among these. */
		more?: Snippet;
		/** What stands at the end of their last line. */
		children: Snippet;
	} = $props();
</script>

<div class="moment-under wide">
	Good until <Moment label="Good until" value={until || null} {zone} none="no end" change={(wanted) => (until = wanted ?? '')} />
</div>
<label>Openings <Input type="number" min="1" max="1000000" bind:value={openings} placeholder="Any number" /></label>
{@render more?.()}
<p class="wide checks">
	<label><Checkbox bind:checked={save} /> Save</label><label><Checkbox bind:checked={print} /> Print</label>
	<span class="grow"></span>
	{@render children()}
</p>
