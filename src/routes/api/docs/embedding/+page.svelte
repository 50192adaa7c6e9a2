<!-- Documents on another website: the elements, each as it is written and as it looks, shown here as it would be there. -->
<script lang="ts">
	import '$lib/ui/site.css';
	import { documentAttributes, elementMarkup, elementScript, frameEvents, listAttributes, type ElementShown, type Explained } from '#core/placing/elements';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data } = $props();
	const examples = $derived.by((): { title: string; says: string; shown: ElementShown }[] => {
		const { document, origin } = data;
		if (!document) return [];
		const one = (attributes: Record<string, string>): ElementShown => ({
			tag: 'ianua-document',
			attributes: { src: document.src, ...attributes },
			inside: { href: document.src, words: document.title }
		});
		return [
			{ title: 'A link', says: 'In a line of text, with the document’s title.', shown: one({}) },
			{
				title: 'A button',
				says: 'It opens the document over the page, in a colour of the website’s own.',
				shown: one({ form: 'button', press: 'over', words: 'Read it here', colour: '#7d2a4a' })
			},
			{ title: 'A cover', says: 'It leads to the document’s page.', shown: one({ form: 'cover', width: '180' }) },
			{ title: 'A card', says: 'Cover, title and where it comes from.', shown: one({ form: 'card' }) },
			{ title: 'A frame', says: 'To read in, as high as a page of it.', shown: one({ form: 'frame', fit: 'page', colour: '#7d2a4a', background: '#e9dfe3' }) },
			{
				title: 'A list',
				says: 'What is open and listed on the site; what is shut there is gone here.',
				shown: {
					tag: 'ianua-list',
					attributes: { src: origin, order: '-changed', most: '4', show: 'covers' },
					inside: { href: origin, words: `Documents of ${data.site.name}` }
				}
			}
		];
	});
	/** Words, and code between backquotes. */
	const parts = (says: string) => says.split('`').map((text, i) => ({ text, code: i % 2 === 1 }));
</script>

{#snippet explained(caption: string, list: Explained)}
	<table>
		<caption>{caption}</caption>
		<tbody>
			{#each list as [name, says] (name)}
				<tr>
					<th scope="row"><code>{name}</code></th>
					<td
						>{#each parts(says) as { text, code }, i (i)}{#if code}<code>{text}</code>{:else}{text}{/if}{/each}</td
					>
				</tr>
			{/each}
		</tbody>
	</table>
{/snippet}

<svelte:head>
	<title>Documents on another website, {data.site.name}</title>
	<script src="/ianua-document.js" async></script>
</svelte:head>
<SiteFrame
	site={data.site}
	me={data.me}
	title="Documents on another website"
	lead="One script and an element for each document. Frames are for websites that the owner allows, links and covers for all."
	spoken="en"
	narrow
>
	<div class="prose-page">
		<p>
			The script is under four kilobytes as it is sent; its types are <a href="/ianua-document.d.ts">ianua-document.d.ts</a>. What stands inside an element
			shows where there is no script, and where the document is not open to everyone.
		</p>
		<pre><code>{elementScript(data.origin)}</code></pre>
		{#each examples as { title, says, shown } (title)}
			<section aria-label={title}>
				<h2>{title}</h2>
				<p>{says}</p>
				<pre><code>{elementMarkup(shown)}</code></pre>
				<div class="live">
					<svelte:element this={shown.tag} {...shown.attributes}><a href={shown.inside.href}>{shown.inside.words}</a></svelte:element>
				</div>
			</section>
		{:else}
			<p>Nothing is open to everyone here yet, so there is nothing to show as an example.</p>
		{/each}
		<h2>Attributes and events</h2>
		{@render explained('ianua-document', documentAttributes)}
		{@render explained('ianua-list', listAttributes)}
		{@render explained('Events of a frame, on the element and bubbling from it', frameEvents)}
		<p><a href="/api/docs">Reference of the API</a></p>
	</div>
</SiteFrame>

<style>
	pre {
		overflow-x: auto;
		padding: 0.7rem 0.9rem;
		border: 1px solid var(--line);
		background: var(--wash);
		font-size: 0.85em;
		white-space: pre-wrap;
		overflow-wrap: anywhere;
	}
	.live {
		margin: 0.9rem 0 2rem;
	}
	table {
		width: 100%;
		margin: 1rem 0 1.6rem;
		border-collapse: collapse;
	}
	caption {
		padding: 0.3rem 0;
		text-align: start;
		font-weight: 600;
	}
	th,
	td {
		padding: 0.45rem 0.7rem 0.45rem 0;
		border-top: 1px solid var(--line);
		text-align: start;
		vertical-align: baseline;
		overflow-wrap: anywhere;
	}
	th {
		width: 9em;
		font-weight: 400;
	}
</style>
