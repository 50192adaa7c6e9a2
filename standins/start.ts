// Starts the stand-ins for a data folder, as a process of its own beside the web server: with the demo a mailbox and two other websites, and the
// bucket where files lie in one; the identity provider where it is wanted.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makePdf } from '../demo/pdf';
import * as scenario from '../demo/scenario';
import { startMailbox } from './mailbox';
import { startOutsideSite } from './outside-site';
import { startBucket } from './s3';
import { startWebSource } from './web-source';

interface Asked {
	readonly data: string;
	readonly origin: string;
	readonly ports: { readonly smtp: number; readonly source: number; readonly outside: number; readonly s3?: number; readonly identity?: number };
	readonly demo: boolean;
}

// given on the command line (scripts/run.ts)
const { data, origin, ports, demo } = JSON.parse(process.argv[2]!) as Asked;
const stops: (() => unknown)[] = [];
if (demo) {
	const kept = join(data, 'web-source.pdf');
	const notice = existsSync(kept) ? readFileSync(kept) : await makePdf(scenario.notice('2026-11-16', false));
	const mailbox = await startMailbox(join(data, 'mail'), ports.smtp);
	const website = await startWebSource(ports.source, notice, (bytes) => writeFileSync(kept, bytes));
	const gazette = await startOutsideSite(ports.outside, origin);
	stops.push(mailbox.stop, website.stop, gazette.stop);
}
if (ports.s3 !== undefined) stops.push((await startBucket(ports.s3, join(data, 's3'))).stop);
if (ports.identity !== undefined) {
	// a whole provider, and only for who wants to try it
	const { startIdentity } = await import('./identity');
	stops.push((await startIdentity(ports.identity, origin)).stop);
}
process.send?.('up');
const end = () => {
	for (const stop of stops) void stop();
	process.exit(0);
};
process.on('SIGTERM', end);
process.on('SIGINT', () => {});
process.on('disconnect', end);
