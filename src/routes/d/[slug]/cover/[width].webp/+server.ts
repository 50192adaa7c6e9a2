// A document's cover.
import type { RequestHandler } from './$types';
import { wholeNumber } from '#core/text/number';
import { fileRequestOf, part } from '$lib/server/http/api';
import { answerCover } from '$lib/server/reading/chain';
import { responseOf } from '$lib/server/reading/deliver';

const handle: RequestHandler = part(
	async (event) => responseOf(await answerCover(fileRequestOf(event, event.params.slug), wholeNumber(event.params.width, 0))),
	false
);
export const GET = handle;
export const HEAD = handle;
