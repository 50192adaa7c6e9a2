<!-- Asks where the words lead: a document, which becomes a placement; a page; or an address. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { isLink } from '#core/text/link';
	import { Button } from '$lib/ui/parts/controls';
	import type { Article } from './article.svelte';
	import { documentAt } from './selection';
	import FindField, { documentCandidates, type Candidate } from './FindField.svelte';

	let { article, close, back }: { article: Article; close: () => void; back: () => void } = $props();
	const before = untrack(() => article.linkAtCursor());
	// words that are chosen are what is looked for first: so the document is usually there already
	let word = $state(untrack(() => before || article.selectedWords()));
	untrack(() => (article.found = null));
	if (!before) untrack(() => void article.find(word));
	onMount(() => article.knowPages());

	/** What was typed, as an address: a website may be named without its protocol. */
	const address = $derived.by(() => {
		const typed = word.trim();
		if (isLink(typed)) return typed;
		if (/^[^\s@/]+@[^\s@/]+\.[^\s@/]+$/.test(typed)) return `mailto:${typed}`;
		return /^[^\s/]+\.[^\s/.]{2,}(\/\S*)?$/.test(typed) && isLink(`https://${typed}`) ? `https://${typed}` : null;
	});
	const candidates = $derived.by((): Candidate[] => {
		const slug = address && documentAt(address);
		const typed: Candidate[] = address
			? [{ key: 'address', title: address, note: slug ? 'Document' : 'Address', choose: () => void article.lead(address) }]
			: [];
		const documents = word.trim() && !address ? (article.found ?? []) : [];
		return [
			...typed,
			...documents.slice(0, 5).flatMap((d) => documentCandidates(article, d, 'Document')),
			...article
				.pagesCalled(word)
				.slice(0, 5)
				.map((p) => ({ key: p.path, title: p.title, note: p.path, choose: () => void article.lead(p.path, p.title) }))
		];
	});
</script>

<FindField
	title="Link"
	label="Where it leads"
	placeholder="A document, a page or an address"
	none="No document or page is called that, and it is no address."
	bind:word
	{candidates}
	find={(sought) => void article.find(sought)}
	{close}
	{back}
>
	{#if before}<p class="px-2 pt-2">
			<Button
				kind="quiet"
				onclick={() => {
					close();
					article.unlink();
				}}>Take the link away</Button
			>
		</p>{/if}
</FindField>
