// Whatever the API does not know is said in its own form.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { problem } from '$lib/server/http/problem';

const unknown: RequestHandler = ({ locals }) => Promise.resolve(problem(new IanuaError('not-found'), locals.requestId));
export const [GET, POST, PUT, PATCH, DELETE] = [unknown, unknown, unknown, unknown, unknown];
