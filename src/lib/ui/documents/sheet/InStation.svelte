<!-- In: the file, its condition and its editions. -->
<script lang="ts">
	import { counted } from '#core/text/list';
	import { sizeWords } from '#core/documents/size';
	import { conditionWords } from '#core/intake/condition';
	import type { DocumentView } from '$lib/server/documents/view';
	import Editions from '$lib/ui/documents/Editions.svelte';
	import FactList from '$lib/ui/documents/FactList.svelte';
	import Findings from '$lib/ui/documents/Findings.svelte';
	import Source from '$lib/ui/documents/Source.svelte';
	import { languageWords } from '$lib/ui/documents/words';
	import { dayText } from '$lib/ui/parts/when';
	import Station from './Station.svelte';

	let { view, zone, maxUpload }: { view: DocumentView; zone: string; maxUpload: number } = $props();
	const checking = $derived(view.condition.status === 'checking');
	const about = $derived(
		`${view.edition === 1 ? 'first edition' : `edition ${view.edition}`}, ${dayText(view.editionAt, zone)}${view.createdBy ? `, by ${view.createdBy}` : ''}`
	);
	const textWords = $derived(
		view.facts.text === 'yes' && !checking
			? ` With text${view.language ? ` in ${languageWords(view.language.split('-')[0]!)}` : ''}${view.facts.tagged ? ', tagged' : ''}.`
			: ''
	);
</script>

<Station id="in" name="In" {about} state={view.passage.in}>
	{#snippet link()}{#if view.pages}<a href="/d/{view.slug}/read?from=desk" target="_blank" rel="noopener">Read it</a>{/if}{/snippet}
	<p>
		{view.pages ? `${counted(view.pages, 'page', 'pages')} ${view.paper}, ` : ''}{sizeWords(view.bytes)}.
		<span class:checking>{conditionWords[view.condition.status]}</span>.{textWords}
	</p>
	<Findings slug={view.slug} findings={view.condition.findings} edition={view.edition} />
	{#if view.source}<Source slug={view.slug} source={view.source} inForce={view.edition} {zone} />{/if}
	<Editions slug={view.slug} editions={view.editions} {zone} {maxUpload} />
	<FactList facts={view.facts} fileName={view.fileName} sha256={view.sha256} {zone} language={view.language} />
</Station>

<style>
	.checking {
		color: var(--brass);
	}
</style>
