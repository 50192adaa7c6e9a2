<!-- The reference of the API: its guide and every operation, drawn in the browser from the description that the site gives of itself. -->
<script lang="ts">
	import '$lib/ui/site.css';
	let { data } = $props();
</script>

<svelte:head>
	<title>API of {data.site.name}</title>
	<script src="/api-reference/redoc.standalone.js" defer></script>
	<script src="/api-reference/draw.js" defer></script>
</svelte:head>
<main id="reference">
	<h1>API of {data.site.name}</h1>
	<p>
		The description of every call is <a href="/api/v1/openapi.json">openapi.json</a> (OpenAPI 3.1). This page draws it, and needs JavaScript for that.
		<a href="/api/docs/problems">What can be wrong</a> is explained without, and so is
		<a href="/api/docs/embedding">how documents are shown on another website</a>.
	</p>
</main>

<style>
	/* what draws the reference has one set of colours */
	main {
		min-height: 100vh;
		color-scheme: light;
		color: var(--ink);
		background: var(--ground);
	}
	/* until it is drawn */
	main > :global(h1),
	main > :global(p) {
		margin: 1rem;
	}
</style>
