<!-- A field of one line, as wide as its words need unless told otherwise. -->
<script lang="ts">
	import type { ClassValue, HTMLInputAttributes } from 'svelte/elements';
	import { Input } from 'flowbite-svelte';

	type Props = Omit<HTMLInputAttributes, 'class' | 'value' | 'size'> & {
		value?: string | number | null;
		elementRef?: HTMLInputElement;
		class?: ClassValue;
	};
	let { value = $bindable(), elementRef = $bindable(), class: more, ...rest }: Props = $props();
	const given: { class: ClassValue } = $derived({ ...rest, class: ['field own-width inline-block', more] });
</script>

<Input {...given} bind:value={() => value ?? undefined, (wanted) => (value = wanted)} bind:elementRef />
