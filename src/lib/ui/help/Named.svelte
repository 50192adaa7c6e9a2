<!-- A sentence of the handbook, what is a name on the screen in bold. -->
<script lang="ts">
	import { namesIn } from './topics';

	let { text }: { text: string } = $props();
</script>

{#each namesIn(text) as part, i (i)}{#if part.name}<b>{part.text}</b>{:else}{part.text}{/if}{/each}
