<!-- What the pages of the sign-in share: the site's frame, a heading, a narrow column. -->
<script lang="ts">
	import type { ComponentProps, Snippet } from 'svelte';
	import { page } from '$app/state';
	import type { SiteLook } from '$lib/server/site/site';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';

	interface Props {
		heading: string;
		navigation?: ComponentProps<typeof SiteFrame>['navigation'];
		children: Snippet;
	}
	let { heading, navigation, children }: Props = $props();
	const site = $derived(page.data.site as SiteLook);
	const me = $derived(page.data.me as { name: string; email: string; staff: boolean } | null);
</script>

<svelte:head><title>{heading}, {site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<SiteFrame {site} {navigation} {me}>
	<div class="column">
		<h1>{heading}</h1>
		{@render children()}
	</div>
</SiteFrame>

<style>
	.column {
		max-width: 380px;
		margin: 4vh auto 0;
	}
	.column :global(:is(p, form)) {
		margin-top: 14px;
	}
	.column :global(form label) {
		display: block;
		margin-bottom: 4px;
	}
	h1 {
		font-size: 28px;
	}
</style>
