// What of the trail an address asks for.
import type { TrailQuery } from './trail';

/** What of the trail an address asks for; what it does not say is empty. */
export function trailQuery(params: URLSearchParams): TrailQuery {
	const text = (name: string) => params.get(name)?.slice(0, 200) ?? '';
	return { kind: text('kind'), actor: text('actor'), action: text('action'), q: text('q'), from: text('from'), until: text('until') };
}
