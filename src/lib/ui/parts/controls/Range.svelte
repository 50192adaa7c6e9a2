<!-- A number by its place on a line. -->
<script lang="ts">
	import { Range, type RangeProps } from 'flowbite-svelte';

	let { value = $bindable(), ...rest }: RangeProps = $props();
</script>

<Range {...rest} appearance="auto" class="accent-(--verdigris) bg-transparent" bind:value />
