// All that is kept of whoever asks, to take away.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { problem } from '$lib/server/http/api';
import { ownRecord } from '$lib/server/people/record';

export const GET: RequestHandler = async ({ locals }) => {
	const { person } = locals.caller;
	if (!person) return problem(new IanuaError('sign-in'), locals.requestId);
	return new Response(JSON.stringify(await ownRecord(person.id), null, '\t'), {
		headers: { 'content-type': 'application/json', 'content-disposition': 'attachment; filename="my-record.json"', 'cache-control': 'no-store' }
	});
};
