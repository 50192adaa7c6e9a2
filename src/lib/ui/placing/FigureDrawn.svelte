<!-- A picture in the editor, drawn as its readers will see it. -->
<script lang="ts">
	import type { SvelteMap } from 'svelte/reactivity';
	import type { PictureAttrs } from '#core/placing/content';
	import Figure from './Figure.svelte';
	let { props }: { props: SvelteMap<'attrs', PictureAttrs> } = $props();
	// the editor always gives them
	const attrs = $derived(props.get('attrs')!);
</script>

<Figure {attrs} />
