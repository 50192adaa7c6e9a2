<script lang="ts">
	import '$lib/ui/theme.css';
	let { children } = $props();
</script>

{@render children()}
