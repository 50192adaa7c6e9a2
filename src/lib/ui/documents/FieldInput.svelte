<!-- A value for one of the site's fields: typed, chosen, or a day. -->
<script lang="ts">
	import { valueOf, type Field } from '#core/documents/fields';
	import { Input, Moment, Select } from '$lib/ui/parts/controls';

	let {
		field,
		value,
		zone,
		none = 'none',
		change
	}: {
		field: Field;
		value: string | number | undefined;
		zone: string;
		/** What it means that nothing is chosen. */
		none?: string;
		/** Null takes it away. Gives undefined where it was not taken: a choice then shows what is. */
		change: (value: string | number | null) => unknown;
	} = $props();
	/** A choice that stands there is offered, though it is no longer one of them. */
	const choices = $derived([...new Set([...(field.choices ?? []), ...(value === undefined ? [] : [String(value)])])]);
	async function choose(select: HTMLSelectElement) {
		if ((await change(select.value || null)) === undefined) select.value = String(value ?? '');
	}
	function typed(input: HTMLInputElement) {
		const read = valueOf(field, input.value);
		const wrong = field.kind === 'number' && typeof read === 'string';
		input.setCustomValidity(wrong ? `“${input.value}” is no number. Write it like 1200 or 12.5.` : '');
		if (wrong || !input.reportValidity()) return;
		if (read !== (value ?? null)) void change(read);
	}
</script>

{#if field.kind === 'choice'}
	<Select aria-label={field.words} value={value ?? ''} onchange={(e) => void choose(e.currentTarget)}>
		<option value="">{none}</option>
		{#each choices as choice (choice)}<option value={choice}>{choice}</option>{/each}
	</Select>
{:else if field.kind === 'date'}
	<Moment value={typeof value === 'string' ? value : null} dayOnly label={field.words} {none} {zone} change={(day) => void change(day)} />
{:else}
	<Input
		aria-label={field.words}
		type={field.kind === 'link' ? 'url' : 'text'}
		inputmode={field.kind === 'number' ? 'decimal' : undefined}
		placeholder={field.kind === 'link' ? 'https://' : none}
		maxlength={500}
		value={value ?? ''}
		oninput={(e) => e.currentTarget.setCustomValidity('')}
		onchange={(e) => typed(e.currentTarget)}
	/>
{/if}
