<!-- What can be done with the keys chosen in the list: another end, withdrawn, given back. -->
<script lang="ts">
	import { Button, Day } from '$lib/ui/parts/controls';
	import { dayOf } from '#core/access/hours';
	import { counted } from '#core/text/list';
	import { act } from '$lib/ui/parts/act';
	import { call, type Given } from '$lib/ui/parts/api';
	import Chosen from '$lib/ui/parts/Chosen.svelte';
	import { dayText } from '$lib/ui/parts/when';

	let { keys, zone, none }: { keys: readonly string[]; zone: string; /** Chooses none. */ none: () => void } = $props();
	let until = $state('');
	let busy = $state(false);
	let trouble = $state('');

	async function change(words: string, wanted: Omit<Given<'post /keys/bulk'>['body'], 'keys'>) {
		busy = true;
		trouble = '';
		await act(
			({ undo }) => (undo.length ? `${counted(undo.length, 'key', 'keys')} ${words}` : 'That is how they are already.'),
			() => call('post /keys/bulk', { body: { ...wanted, keys: [...keys] } }),
			({ undo }) => call('post /keys/bulk/undo', { body: { undo } }),
			{ trouble: (said) => (trouble = said) }
		);
		busy = false;
	}
</script>

<Chosen label="Keys chosen" words={counted(keys.length, 'key', 'keys')} {none} {trouble}>
	<label>Last day <Day label="Last day of those chosen" bind:value={until} least={dayOf(Date.now(), zone)} /></label>
	<Button disabled={busy || !until} onclick={() => change(`good until ${dayText(until, zone)}.`, { until })}>Set the last day</Button>
	<Button disabled={busy} onclick={() => change('without an end.', { until: null })}>Without an end</Button>
	<span class="ml-auto"></span>
	<Button disabled={busy} onclick={() => change('withdrawn, and good for nothing any more.', { withdrawn: true })}>Withdraw</Button>
	<Button disabled={busy} onclick={() => change('given back.', { withdrawn: false })}>Give back</Button>
</Chosen>
