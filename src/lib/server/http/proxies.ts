// Whose address a request comes from, where proxies stand in front: their word counts as far as they are trusted, nobody else's does.
import ipaddr from 'ipaddr.js';

/** How many proxies stand in front, or the networks in which they stand. */
export type Proxies = { readonly count: number } | { readonly networks: readonly [ipaddr.IPv4 | ipaddr.IPv6, number][] };

/** Reads a count (`2`) or networks (`10.0.0.0/8,::1/128`). Throws with what is wrong. */
export function proxiesOf(text: string): Proxies {
	if (/^\d{1,2}$/.test(text)) return { count: Number(text) };
	try {
		return { networks: text.split(',').map((network) => ipaddr.parseCIDR(network.trim())) };
	} catch {
		throw new Error(
			`The settings are not right: IANUA_PROXIES is a number of proxies, or their networks such as 10.0.0.0/8, not “${text}”. See docs/settings.md.`
		);
	}
}

const isIn = (address: string, networks: readonly [ipaddr.IPv4 | ipaddr.IPv6, number][]): boolean => {
	if (!ipaddr.isValid(address)) return false;
	const parsed = ipaddr.process(address);
	return networks.some(([range, bits]) => parsed.kind() === range.kind() && parsed.match(range, bits));
};

/**
 * The address that a request comes from: the last one in `X-Forwarded-For` that no trusted proxy is, counted or looked up from the right. Where
 * the field is missing, short, or holds something else, the nearest that can be trusted: at last the connection's own.
 */
export function clientAddress(socket: string, forwarded: string | undefined, proxies: Proxies): string {
	const chain = [
		...(forwarded ?? '')
			.split(',')
			.map((part) => part.trim())
			.filter(Boolean),
		socket
	];
	let hop = chain.length - 1;
	if ('count' in proxies) hop = Math.max(0, hop - proxies.count);
	else while (hop > 0 && isIn(chain[hop]!, proxies.networks)) hop--;
	// what is no address was not written by a proxy: whoever handed it on is the nearest that is known
	while (hop < chain.length - 1 && !ipaddr.isValid(chain[hop]!)) hop++;
	return chain[hop]!;
}
