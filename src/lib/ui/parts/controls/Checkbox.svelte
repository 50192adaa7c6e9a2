<!-- Yes or no; its words stand in the label around it, or as children. -->
<script lang="ts">
	import { Checkbox, type CheckboxProps } from 'flowbite-svelte';

	let { checked = $bindable(false), group = $bindable([]), ...rest }: CheckboxProps = $props();
</script>

<Checkbox {...rest} bind:checked bind:group />
