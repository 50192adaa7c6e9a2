// One upload by the tus protocol 1.0.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { answerTus } from '$lib/server/intake/tus';

const tus: RequestHandler = route(async (event) => answerTus(event.request, staff(event)));
export const [HEAD, PATCH, DELETE, OPTIONS] = [tus, tus, tus, tus];
