// What lucide-static's JSON holds, which TypeScript would spell out icon by icon.
declare module 'lucide-static/icon-nodes.json' {
	const nodes: Record<string, [tag: string, attributes: Record<string, string>][]>;
	export default nodes;
}
declare module 'lucide-static/tags.json' {
	const tags: Record<string, string[]>;
	export default tags;
}
declare module 'fontverter' {
	/** A font file in another of the formats of the web. */
	export function convert(font: Uint8Array, format: 'sfnt' | 'woff' | 'woff2'): Promise<Uint8Array>;
}

declare module 's3rver' {
	/** A bucket on loopback that speaks S3: what the stand-in uses of it. */
	export default class S3rver {
		constructor(options: { address: string; port: number; directory: string; silent: boolean; configureBuckets: { name: string; configs: string[] }[] });
		run(): Promise<unknown>;
		close(): Promise<void>;
	}
}

declare module 'oidc-provider' {
	import type { Server } from 'node:http';
	/** What of it the stand-in uses. */
	export default class Provider {
		constructor(issuer: string, configuration: Record<string, unknown>);
		listen(port: number, host: string, up?: () => void): Server;
	}
}
