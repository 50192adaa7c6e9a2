// What was wrong, as problem details (RFC 9457).
import { isHttpError } from '@sveltejs/kit';
import { catalogue, IanuaError, problemOf, type ErrorCode } from '#core/errors';
import { log } from '../log';
import { settings } from '../settings';
import { zeroByte } from '../validate';

/** What PostgreSQL says of what it cannot keep, by its codes, in words. */
const refusedByDatabase: Readonly<Record<string, string>> = {
	'22021': zeroByte,
	'22P05': zeroByte,
	'22003': 'a number in it is too large',
	'22008': 'a time in it is none'
};

/** The error of the catalogue that an error is. */
export function knownError(error: unknown): IanuaError {
	if (error instanceof IanuaError) return error;
	// what a lock throws, or a page
	if (isHttpError(error) && Object.hasOwn(catalogue, error.body.code)) return new IanuaError(error.body.code as ErrorCode);
	// Drizzle says which query it was, and has the database's own error as its cause
	const { code } = ((error as { cause?: unknown } | null)?.cause ?? error ?? {}) as { code?: string };
	// a statement that took too long (57014) was ended
	if (code === '57014') return new IanuaError('busy');
	const detail = refusedByDatabase[code ?? ''];
	if (detail) return new IanuaError('not-valid', { detail });
	return new IanuaError('unexpected');
}

/** The problem details of an error of the catalogue; their type leads to what is said of the code. */
export const problemDetails = (error: IanuaError, requestId?: string) => problemOf(error, `${settings().IANUA_ORIGIN}/api/docs/problems`, requestId);

/** Problem details (RFC 9457) for any error; an unexpected one is logged and worded calmly. */
export function problem(error: unknown, requestId: string): Response {
	const known = knownError(error);
	if (known.code === 'unexpected') log().error({ err: error, requestId }, 'unexpected error');
	return new Response(JSON.stringify(problemDetails(known, requestId)), {
		status: known.status,
		headers: {
			'content-type': 'application/problem+json',
			'cache-control': 'no-store',
			...(known.code === 'busy' ? { 'retry-after': '2' } : {}),
			...limitHeaders(known)
		}
	});
}

/** The framework's answer to a method that an address does not take, as problem details; `Allow` names those that it does (RFC 9110, 15.5.6). */
export function methodProblem(response: Response, requestId: string): Response {
	const allow = response.headers.get('allow') ?? '';
	const said = problem(new IanuaError('method-not-allowed', { allow }), requestId);
	said.headers.set('allow', allow);
	return said;
}

/** How long to wait after too many tries: Retry-After (RFC 9110, 10.2.3), and the fields of the IETF's draft “RateLimit header fields for HTTP” (from memory). */
export function limitHeaders({ code, facts: { most, window, seconds } }: IanuaError): Record<string, string> {
	if (code !== 'too-many-tries') return {};
	return {
		'retry-after': seconds ?? String(quarterOfAnHour),
		...(most && window && seconds ? { 'ratelimit-policy': `"tries";q=${most};w=${window}`, ratelimit: `"tries";r=0;t=${seconds}` } : {})
	};
}

/** S: what the words of the catalogue say of too many tries, where nothing says it closer. */
export const quarterOfAnHour = 900;
