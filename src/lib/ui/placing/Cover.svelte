<!-- The cover of a document, sharp at any width. -->
<script lang="ts">
	import type { SeenCover } from '$lib/server/placing/page-view';
	let {
		cover,
		width,
		alt = cover.alt,
		lazy = true
	}: {
		cover: SeenCover;
		/** In CSS px, as far as it is known: which of the pictures a browser takes. */
		width: number;
		/** Empty where the words beside it say the same. */
		alt?: string;
		/** Fetched once it is near; the first of a page comes at once. */
		lazy?: boolean;
	} = $props();
	const at = (px: number) => `/d/${cover.slug}/cover/${px}.webp${cover.query}`;
</script>

<img
	src={at(width > 300 ? 600 : 300)}
	srcset="{at(300)} 300w, {at(600)} 600w, {at(1200)} 1200w"
	sizes="{width}px"
	{width}
	height={cover.ratio === null ? undefined : Math.round(width * cover.ratio)}
	{alt}
	loading={lazy ? 'lazy' : undefined}
	fetchpriority={lazy ? undefined : 'high'}
/>
