<!-- Where a find hit inside a document: pages with the words marked, each opening the reading room there. -->
<script lang="ts">
	import { counted } from '#core/text/list';

	interface Props {
		slug: string;
		hits: readonly { page: number; stretches: readonly { text: string; marked: boolean }[] }[];
		/** On how many pages all of it stands; null where not counted. */
		pages: number | null;
	}
	let { slug, hits, pages }: Props = $props();

	/** The words marked on a page, for the reading room to mark them again (RFC 8118: search). */
	const address = (hit: (typeof hits)[number]) => {
		const words = [...new Set(hit.stretches.filter((s) => s.marked).map((s) => s.text.trim()))].join(' ');
		return `/d/${slug}/read?from=desk#page=${hit.page}&search=${encodeURIComponent(words)}`;
	};
</script>

<ul>
	{#each hits as hit (hit.page)}
		<li>
			<a href={address(hit)} target="_blank" rel="noopener">p. {hit.page}</a>
			<span
				>{#each hit.stretches as stretch, i (i)}{#if stretch.marked}<mark>{stretch.text}</mark>{:else}{stretch.text}{/if}{/each}</span
			>
		</li>
	{/each}
	{#if pages !== null && pages > hits.length}<li class="soft">and on {counted(pages - hits.length, 'more page', 'more pages')}</li>{/if}
</ul>

<style>
	li {
		display: flex;
		gap: 10px;
		font-size: 13px;
		line-height: 24px;
		color: var(--ink-soft);
	}
	a {
		flex: none;
		min-width: 44px;
		/* WCAG 2.2, 2.5.8: targets of at least 24 × 24 CSS px */
		line-height: 24px;
	}
	mark {
		background: var(--brass-wash);
		color: var(--brass);
		font-weight: 600;
	}
</style>
