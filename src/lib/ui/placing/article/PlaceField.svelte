<!-- Asks for a document to be placed at the cursor. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import type { Article } from './article.svelte';
	import FindField, { documentCandidates } from './FindField.svelte';

	let { article, close, back }: { article: Article; close: () => void; back: () => void } = $props();
	let word = $state('');
	untrack(() => (article.found = null));
	const candidates = $derived(
		((word.trim() && article.found) || article.given.atHand).slice(0, 8).flatMap((document) => documentCandidates(article, document))
	);
</script>

<FindField
	title="Place a document"
	label="Which document"
	placeholder="Part of its title"
	none="No document is called that."
	bind:word
	{candidates}
	find={(sought) => void article.find(sought)}
	{close}
	{back}
/>
