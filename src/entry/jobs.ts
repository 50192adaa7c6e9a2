// A process for the jobs alone, where the web servers leave them (IANUA_JOBS=apart): checks of PDFs, what is due by the clock, sums, messages.
import { start } from '#server/start';
import { endWork } from '#server/work';
import { cannotStart, checkedSettings, outliveDatabase } from './process';

checkedSettings();
await start({ work: true }).catch(cannotStart);
outliveDatabase();
process.send?.('working');

let ending = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
	process.on(signal, () => {
		if (ending) return;
		ending = true;
		void endWork()
			.catch(() => {})
			.then(() => process.exit(0));
	});
}
process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
