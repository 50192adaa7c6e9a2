import { rendered } from '$lib/ui/placing/rendered';

/** Before a page that the server rendered is taken over. */
export async function init() {
	if (document.querySelector('[data-went-wrong]')) rendered.TurnedAway = (await import('$lib/ui/placing/TurnedAway.svelte')).default;
}
