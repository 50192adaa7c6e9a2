// The jobs that every server takes part in, and what runs by the clock.
import { takeIn } from './intake/tray';
import { checkEdition } from './intake/check';
import { watchSources } from './intake/source';
import { beginAgain, sweep } from './intake/sweep';
import { everySo, queueJob, stopJobs, workOn } from './jobs/boss';
import { sendDueReports } from './readership/subscriptions';
import { keepTelling } from './readership/deliveries';
import { keepSumming } from './readership/sums/keep';
import { log } from './log';
import { tellNews } from './news/mail';
import { publishDue } from './placing/commands';
import { dismissHelpers } from './pdf/helpers';

/** Ms between two looks for work that was begun by a server that is gone. */
const lookAgain = 60_000;

/** Begins taking jobs from every queue, and what runs by the clock. */
export async function startWork(): Promise<void> {
	await workOn('take-in', async ({ intake }) => {
		// the check follows in the same turn: a file goes from arrived to sound without waiting in a second line
		const made = await takeIn(intake);
		if (made) await checkEdition(made.edition, made.first);
	});
	await workOn('check', ({ edition }) => checkEdition(edition));
	await workOn('watch', watchSources, 1);
	await workOn('publish', () => publishDue(new Date()), 1);
	await workOn('sweep', () => sweep(Date.now()), 1);
	await workOn(
		'tell',
		async () => {
			await sendDueReports(Date.now());
			await tellNews(Date.now());
		},
		1
	);
	await everySo('tell', '* * * * *');
	await everySo('watch', '7 * * * *');
	await everySo('publish', '* * * * *');
	await everySo('sweep', '23 * * * *');
	keepSumming();
	keepTelling();
	await beginAgain();
	await queueJob('sweep', {}, 'at start');
	setInterval(() => void beginAgain().catch((err: unknown) => log().warn({ err }, 'begin again')), lookAgain).unref();
}

/** Takes no more jobs, waits for those under way, and lets the helpers go. */
export async function endWork(): Promise<void> {
	await stopJobs();
	dismissHelpers();
}
