// 200 when database, store (a byte written) and jobs answer, else 503 naming what does not; 503 too while the server is on its way out.
import type { RequestHandler } from './$types';
import { sql } from '$lib/server/db/client';
import { storeAnswers } from '$lib/server/store/store';
import { answer } from '$lib/server/http/api';
import { sweepStopped } from '$lib/server/intake/sweep';
import { jobsAnswer } from '$lib/server/jobs/boss';

const patience = 5_000;
/** Whether something answers in time. */
const answers = (asked: Promise<unknown>): Promise<boolean> =>
	Promise.race([asked.then((said) => said !== false), new Promise<boolean>((done) => setTimeout(() => done(false), patience).unref())]).catch(() => false);

export const GET: RequestHandler = async () => {
	const [database, store, jobs] = await Promise.all([answers(sql()`select 1`), answers(storeAnswers()), answers(jobsAnswer())]);
	const ok = database && store && jobs;
	const stopped = database ? await sweepStopped().catch(() => null) : null;
	const sweep = stopped ? { sweep: `stopped: ${stopped.strays} of ${stopped.of} files have no row in the database` } : {};
	return ok ? answer({ ok, ...sweep }) : answer({ ok, database, store, jobs, ...sweep }, 503);
};
