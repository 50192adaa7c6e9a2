// One built application on a real PostgreSQL of its own for all server tests; both end with the tests.
import type { TestProject } from 'vitest/node';
import { join } from 'node:path';
import { makePdf } from '../../demo/pdf';
import { startMailbox } from '../../standins/mailbox';
import { startWebSource } from '../../standins/web-source';
import { build } from '../../scripts/build';
import { freePort } from '../../scripts/postgres';
import { runIanua } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';

declare module 'vitest' {
	export interface ProvidedContext {
		origin: string;
		environment: Record<string, string>;
		/** Port of the stand-in for another website. */
		webSource: number;
		/** A port on which a test may stand as a program that is told what happens. */
		webhook: number;
		/** Folder of the stand-in mailbox. */
		mail: string;
	}
}

const notice = {
	title: 'Conditions elsewhere',
	subtitle: '',
	colour: '#000000',
	size: 'A4' as const,
	day: '2026-11-24',
	sections: [{ heading: 'Flow', paragraphs: ['The river runs high.'] }]
};

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
	build();
	const { path: data, drop } = scratch('server');
	process.env.IANUA_MAX_UPLOAD = '3000000';
	const [smtp, source, webhook] = [await freePort(), await freePort(), await freePort()];
	process.env.IANUA_SMTP_URL = `smtp://127.0.0.1:${smtp}`;
	process.env.IANUA_WEB_ALLOW = `127.0.0.1:${source},127.0.0.1:${webhook}`;
	const mail = join(data, 'mail');
	process.env.IANUA_POSTBOX = mail;
	const mailbox = await startMailbox(mail, smtp);
	const website = await startWebSource(source, await makePdf({ ...notice, seed: 1 }));
	const running = await runIanua({ data, port: await freePort(), demo: false, quick: true, log: 'error' });
	project.provide('origin', running.origin);
	project.provide('environment', running.environment);
	project.provide('webSource', source);
	project.provide('webhook', webhook);
	project.provide('mail', mail);
	return async () => {
		await running.stop();
		mailbox.stop();
		website.stop();
		drop();
	};
}
