<!-- A picture kept by the site, sharp at any width. -->
<script lang="ts">
	let {
		picture,
		alt,
		width,
		height
	}: {
		/** Its checksum. */
		picture: string;
		alt: string;
		/** Its own measures in px, where they are known: the room is kept before it has come. */
		width?: number | undefined;
		height?: number | undefined;
	} = $props();
	const at = (px: number) => `/picture/${picture}.webp?w=${px}`;
</script>

<img src={at(800)} srcset="{at(400)} 400w, {at(800)} 800w, {at(1600)} 1600w" sizes="(max-width: 760px) 100vw, 720px" {width} {height} {alt} loading="lazy" />
