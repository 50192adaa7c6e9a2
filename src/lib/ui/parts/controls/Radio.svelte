<!-- One of several, with its words as children. -->
<script lang="ts" generics="T">
	import { Radio, type RadioProps } from 'flowbite-svelte';

	let { group = $bindable<T>(), children, ...rest }: RadioProps<T> = $props();
</script>

<Radio {...rest} bind:group>{@render children?.()}</Radio>
