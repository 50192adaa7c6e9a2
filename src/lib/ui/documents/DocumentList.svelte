<script lang="ts">
	import { sizeWords } from '#core/documents/size';
	import { words } from '$lib/ui/parts/words';
	let { documents }: { documents: readonly { slug: string; title: string; pages: number; bytes: number }[] } = $props();
</script>

<ul class="mt-4">
	{#each documents as document (document.slug)}
		<li>
			<img src="/d/{document.slug}/cover/96.webp" alt="" loading="lazy" />
			<span
				><a href="/d/{document.slug}">{document.title}</a><small
					>{['PDF', ...(document.pages ? [words('pages', { count: document.pages })] : []), sizeWords(document.bytes)].join(', ')}</small
				></span
			>
		</li>
	{/each}
</ul>

<style>
	li {
		display: flex;
		gap: 14px;
		align-items: center;
		padding: 9px 0;
		border-top: 1px solid var(--line);
	}
	img {
		width: 40px;
		max-height: 56px;
		object-fit: contain;
		border: 1px solid var(--line);
		background: #fff;
	}
	a {
		font: 600 16px var(--title);
		text-decoration: none;
	}
	small {
		display: block;
		color: var(--ink-soft);
		font-size: 13px;
	}
</style>
