// What every process of the server does before it is of use: the database brought up to date, the store looked at, the work by the clock begun.
import { reckonHours } from './access/hours';
import { keepHearing } from './db/changes';
import { db, ensureLedgerMonths, migrateDatabase } from './db/client';
import { dropNear, dropTemporary } from './store/store';
import { tieStore } from './store/tie';
import { startJobs } from './jobs/boss';
import { log } from './log';
import { placeOldLinks } from './placing/old-links';
import { offerBeginCode } from './people/begin';
import { providers } from './people/providers';
import { settings } from './settings';
import { site } from './site/site';
import { startWork } from './work';

const dayMs = 86_400_000;
/** How often copies of a bucket are counted. */
const nearMs = 600_000;

/** Brings the process up; `work`: it takes part in the jobs. Throws in a sentence where the settings, the database or the store are not right. */
export async function start({ work }: { work: boolean }): Promise<void> {
	settings();
	providers();
	await migrateDatabase();
	await tieStore();
	await reckonHours(db(), (await site()).zone);
	await dropTemporary(Date.now());
	await offerBeginCode();
	if (work) await placeOldLinks();
	// also where others do them: jobs are queued from here
	await startJobs();
	if (work) await startWork();
	keepHearing();
	setInterval(() => void dropNear(Date.now()).catch((err: unknown) => log().warn({ err }, 'copies of the bucket')), nearMs).unref();
	setInterval(() => void ensureLedgerMonths(new Date()).catch((err: unknown) => log().error({ err }, 'ledger partitions')), dayMs).unref();
}
