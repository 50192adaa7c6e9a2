<!-- Each page has an editor of its own: led from one page to another, nothing of the first stays. -->
<script lang="ts">
	import { page } from '$app/state';
	let { children } = $props();
</script>

{#key page.params.id}{@render children()}{/key}
