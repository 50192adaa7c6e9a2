<!-- What those turned away are told: heading, words, one button, and whether they may knock. Empty fields leave it to the site, or to the general words. -->
<script lang="ts">
	import { Button, Input, Select, Textarea } from '$lib/ui/parts/controls';
	import { untrack } from 'svelte';
	import type { TurnedAwayWords } from '#core/access/door';
	import { targetPattern } from '#core/text/link';

	let {
		words,
		knocks = true,
		site = false,
		save
	}: {
		words: TurnedAwayWords | null;
		/** Whether one can knock here at all (at documents). */
		knocks?: boolean;
		/** For the whole site: there is nothing further to leave it to. */
		site?: boolean;
		save: (words: TurnedAwayWords | null) => void;
	} = $props();

	// the form is made anew when it is opened
	let [heading, text, label, target, knock] = $state(
		untrack(() => [
			words?.heading ?? '',
			words?.words ?? '',
			words?.button?.label ?? '',
			words?.button?.target ?? '',
			words?.knock === undefined || words.knock === null ? (site ? 'yes' : '') : words.knock ? 'yes' : 'no'
		])
	);
	let trouble = $state('');

	function submit(event: SubmitEvent) {
		event.preventDefault();
		if ((label.trim() === '') !== (target.trim() === '')) {
			trouble = 'A button needs both its words and where it leads.';
			return;
		}
		if (target.trim() && !new RegExp(targetPattern).test(target.trim())) {
			trouble = 'The button leads to a path of this site, as in /join, or to an address that begins with https://.';
			return;
		}
		trouble = '';
		const given: TurnedAwayWords = {
			...(heading.trim() ? { heading: heading.trim() } : {}),
			...(text.trim() ? { words: text.trim() } : {}),
			...(label.trim() ? { button: { label: label.trim(), target: target.trim() } } : {}),
			...(knock ? { knock: knock === 'yes' } : {})
		};
		save(Object.keys(given).length ? given : null);
	}
</script>

<form class="fields panel" onsubmit={submit}>
	<label class="wide">Heading <Input bind:value={heading} maxlength={200} placeholder={site ? 'As the reason is' : 'As the site has it'} /></label>
	<label class="wide">Words <Textarea rows={3} bind:value={text} maxlength={2000} placeholder="The reason is told below them in any case"></Textarea></label>
	<label>Button <Input bind:value={label} maxlength={80} placeholder={site ? 'None' : 'As the site has it'} /></label>
	<label>leads to <Input bind:value={target} maxlength={1000} placeholder="/join" /></label>
	{#if knocks}
		<label class="wide"
			>Knocking
			<Select bind:value={knock}>
				{#if !site}<option value="">as the site has it</option>{/if}
				<option value="yes">they may ask to be let in</option>
				<option value="no">nobody may knock</option>
			</Select></label
		>
	{/if}
	<p class="wide checks"><Button type="submit" kind="main">Set the words</Button></p>
	{#if trouble}<p class="trouble wide" role="alert">{trouble}</p>{/if}
</form>

<style>
	form {
		margin-top: 8px;
	}
</style>
