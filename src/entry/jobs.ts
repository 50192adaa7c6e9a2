// A process for the jobs alone, where the web servers leave them (IANUA_JOBS=apart): checks of PDFs, what is due by the clock, sums, messages.
import { start } from '#server/start';
import { endWork } from '#server/work';
import { log } from '#server/log';
import { cannotStart, checkedSettings, outliveDatabase, tellStart } from './process';

checkedSettings();
await start({ work: true }).catch(cannotStart);
outliveDatabase();
tellStart('jobs');
process.send?.('working');

let ending = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
	process.on(signal, () => {
		if (ending) return;
		ending = true;
		log().info({ program: 'jobs', signal }, 'stopping');
		void endWork()
			.catch(() => {})
			.then(() => {
				log().info({ program: 'jobs' }, 'stopped');
				process.exit(0);
			});
	});
}
process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
