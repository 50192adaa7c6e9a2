<!-- A day without a time: typed as people write it, or chosen in a calendar. `value` is YYYY-MM-DD, '' for none; with a name it goes with its form. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import Input from './Input.svelte';
	import Moment from './Moment.svelte';

	let {
		value = $bindable(''),
		name,
		label,
		none = '',
		near,
		required,
		least,
		most
	}: {
		value?: string;
		name?: string;
		/** What it is the day of, for who cannot see what stands before it. */
		label: string;
		/** What it means that none is set; without words it is taken out by emptying the field. */
		none?: string;
		near?: string | null;
		required?: boolean;
		/** The first and the last day that may be chosen. */
		least?: string;
		most?: string;
	} = $props();

	const zone = $derived((page.data as { site?: { zone?: string } }).site?.zone ?? 'UTC');
	/** Until the script is there, and where there is none, the browser's own field does it. */
	let scripted = $state(false);
	onMount(() => (scripted = true));
</script>

{#if scripted}
	<Moment value={value || null} dayOnly {label} {none} {zone} {near} {required} {least} {most} change={(day) => (value = day ?? '')} />
	{#if name}<input type="hidden" {name} {value} />{/if}
{:else}
	<Input type="date" {name} aria-label={label} bind:value {required} min={least} max={most} />
{/if}
