<!-- Every page fetches the one of what went wrong; what that shows comes when it is needed, or was rendered. -->
<script lang="ts" module>
	import { rendered } from '$lib/ui/placing/rendered';
	const whole = () => import('$lib/ui/placing/TurnedAway.svelte');
	const ofServer = import.meta.env.SSR ? (await whole()).default : undefined;
</script>

<script lang="ts">
	import { page } from '$app/state';
	const TurnedAway = ofServer ?? rendered.TurnedAway;
</script>

{#if TurnedAway}
	<TurnedAway />
{:else}
	{#await whole() then { default: TurnedAway }}
		<TurnedAway />
	{:catch}
		<main data-testid="turned-away">
			<h1>{page.error?.heading ?? page.status}</h1>
			<p>{page.error?.message}</p>
		</main>
	{/await}
{/if}
