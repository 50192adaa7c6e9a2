<!-- A field of several lines. -->
<script lang="ts">
	import { Textarea, type TextareaProps } from 'flowbite-svelte';

	let { value = $bindable(), elementRef = $bindable(), class: more, ...rest }: TextareaProps = $props();
</script>

<Textarea {...rest} bind:value bind:elementRef classes={{ div: 'contents' }} class={['field', more]} />
