// Starts the stand-ins for a data folder, as a process of its own beside the web server.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makePdf } from '../demo/pdf';
import * as scenario from '../demo/scenario';
import { startMailbox } from './mailbox';
import { startOutsideSite } from './outside-site';
import { startWebSource } from './web-source';

const [folder, smtp, source, outside, origin] = process.argv.slice(2);
// given on the command line (scripts/run.ts)
const kept = join(folder!, '..', 'web-source.pdf');
const notice = existsSync(kept) ? readFileSync(kept) : await makePdf(scenario.notice('2026-11-16', false));
// given on the command line
const mailbox = await startMailbox(folder!, Number(smtp));
const website = await startWebSource(Number(source), notice, (bytes) => writeFileSync(kept, bytes));
// given on the command line
const gazette = await startOutsideSite(Number(outside), origin!);
process.send?.('up');
const end = () => {
	mailbox.stop();
	website.stop();
	gazette.stop();
	process.exit(0);
};
process.on('SIGTERM', end);
process.on('SIGINT', () => {});
process.on('disconnect', end);
