// Addresses that lead to another route than they look like: the framework asks here before it routes, so all that follows goes by the route.
import type { Reroute } from '@sveltejs/kit';

const text = /^\/d\/[^/]+\/text$/;

/** `/d/<slug>/text?plain` is the reading text as plain text. */
export const reroute: Reroute = ({ url }) => (text.test(url.pathname) && url.searchParams.has('plain') ? `${url.pathname}/plain` : undefined);
