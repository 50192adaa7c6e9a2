<!-- A choice of one among several, its options as children. -->
<script lang="ts" generics="T">
	import type { Snippet } from 'svelte';
	import type { ClassValue, HTMLSelectAttributes } from 'svelte/elements';
	import { Select } from 'flowbite-svelte';

	type Props = Omit<HTMLSelectAttributes, 'class' | 'value' | 'size' | 'disabled'> & {
		value?: T;
		elementRef?: HTMLSelectElement;
		disabled?: boolean;
		class?: ClassValue;
		children?: Snippet;
	};
	let { value = $bindable(), elementRef = $bindable(), class: more, children, ...rest }: Props = $props();
</script>

<Select {...rest} placeholder="" bind:value bind:elementRef class="contents" classes={{ select: ['field w-auto inline-block', more] }}
	>{@render children?.()}</Select
>
