// What a page of what went wrong shows: with the page where the server rendered it, else when it is needed.
import type TurnedAway from './TurnedAway.svelte';

export const whole = () => import('./TurnedAway.svelte');

/** Set before a page that the server rendered is taken over. */
export const rendered: { TurnedAway?: typeof TurnedAway } = {};

export async function takeOver() {
	if (document.querySelector('[data-testid=turned-away]')) rendered.TurnedAway = (await whole()).default;
}
