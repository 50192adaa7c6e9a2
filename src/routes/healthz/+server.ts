// 200 when database and store answer, else 503 naming what does not.
import type { RequestHandler } from './$types';
import { sql } from '$lib/server/db/client';
import { storeAnswers } from '$lib/server/files/store';
import { answer } from '$lib/server/http/api';

export const GET: RequestHandler = async () => {
	const [database, store] = await Promise.all([
		sql()`select 1`.then(
			() => true,
			() => false
		),
		storeAnswers()
	]);
	return database && store ? answer({ ok: true }) : answer({ ok: false, database, store }, 503);
};
