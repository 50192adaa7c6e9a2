<!-- What the pages of the sign-in share: the site's frame, an archway, a heading. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { page } from '$app/state';
	import type { SiteLook } from '$lib/server/site/site';
	import Archway from '$lib/ui/placing/Archway.svelte';

	interface Props {
		heading: string;
		children: Snippet;
	}
	let { heading, children }: Props = $props();
	const site = $derived(page.data.site as SiteLook);
</script>

<svelte:head><title>{heading}, {site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<Archway {heading}>{@render children()}</Archway>
