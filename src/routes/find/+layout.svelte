<script lang="ts">
	import '$lib/ui/site.css';
	let { children } = $props();
</script>

{@render children()}
