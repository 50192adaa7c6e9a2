import type TurnedAway from './TurnedAway.svelte';

/** What a page of what went wrong shows, where it came rendered by the server. */
export const rendered: { TurnedAway?: typeof TurnedAway } = {};
