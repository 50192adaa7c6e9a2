// The description of the API, made from the schemas its requests are checked by.
import type { RequestHandler } from './$types';
import { answer, route } from '$lib/server/http/api';
import { openApi } from '$lib/server/http/openapi';
import { settings } from '$lib/server/settings';

export const GET: RequestHandler = route(() => answer(openApi(settings().IANUA_ORIGIN)));
