// Alive: the server answers. Whether it can do its work is /readyz's to say.
import type { RequestHandler } from './$types';
import { answer } from '$lib/server/http/api';

export const GET: RequestHandler = () => answer({ ok: true });
