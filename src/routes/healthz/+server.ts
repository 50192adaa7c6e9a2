// 200 when database, store and jobs answer, else 503 naming what does not.
import type { RequestHandler } from './$types';
import { sql } from '$lib/server/db/client';
import { storeAnswers } from '$lib/server/files/store';
import { jobsAnswer } from '$lib/server/jobs/boss';
import { answer } from '$lib/server/http/api';

export const GET: RequestHandler = async () => {
	const [database, store, jobs] = await Promise.all([
		sql()`select 1`.then(
			() => true,
			() => false
		),
		storeAnswers(),
		jobsAnswer()
	]);
	return database && store && jobs ? answer({ ok: true }) : answer({ ok: false, database, store, jobs }, 503);
};
