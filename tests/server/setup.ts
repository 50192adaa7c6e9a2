// Built applications, each on a real PostgreSQL of its own, for the server tests: one for each that runs at the same time. They end with the tests.
import type { TestProject } from 'vitest/node';
import { join } from 'node:path';
import { makePdf } from '../../demo/pdf';
import { startMailbox } from '../../standins/mailbox';
import { startWebSource } from '../../standins/web-source';
import { build } from '../../scripts/build';
import { freePort } from '#server/db/cluster';
import { runIanua } from '../../scripts/run';
import { prepareSamples } from '../../scripts/samples';
import { scratch } from '../../scripts/scratch';

/** What a test is given: an application of its own, and what stands beside it. */
export interface Given {
	readonly origin: string;
	readonly environment: Record<string, string>;
	/** Port of the stand-in for another website. */
	readonly webSource: number;
	/** A port on which a test may stand as a program that is told what happens. */
	readonly webhook: number;
	/** Folder of the stand-in mailbox. */
	readonly mail: string;
}

declare module 'vitest' {
	export interface ProvidedContext {
		/** One for each test that may run at the same time. */
		given: Given[];
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

async function startOne(name: string): Promise<{ given: Given; stop(): Promise<void> }> {
	const { path: data, drop } = scratch(name);
	const [smtp, source, webhook] = [await freePort(), await freePort(), await freePort()];
	const mail = join(data, 'mail');
	const mailbox = await startMailbox(mail, smtp);
	const website = await startWebSource(source, await makePdf({ ...notice, seed: 1 }));
	const settings = {
		IANUA_MAX_UPLOAD: '3000000',
		// with other work beside it the sums take longer than anybody at a screen would wait
		IANUA_REPORT_WAIT: '6000',
		IANUA_SMTP_URL: `smtp://127.0.0.1:${smtp}`,
		IANUA_WEB_ALLOW: `127.0.0.1:${source},127.0.0.1:${webhook}`,
		IANUA_POSTBOX: mail
	};
	const running = await runIanua({ data, port: await freePort(), demo: false, quick: true, log: 'error', given: settings });
	return {
		given: { origin: running.origin, environment: running.environment, webSource: source, webhook, mail },
		stop: async () => {
			await running.stop();
			mailbox.stop();
			website.stop();
			drop();
		}
	};
}

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
	build();
	await prepareSamples();
	const all = await Promise.all(Array.from({ length: project.config.maxWorkers }, (_, n) => startOne(`server-${n + 1}`)));
	project.provide(
		'given',
		all.map(({ given }) => given)
	);
	return async () => {
		await Promise.all(all.map(({ stop }) => stop()));
	};
}
