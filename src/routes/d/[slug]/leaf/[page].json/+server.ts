// The words of a page and where they stand on it.
import type { RequestHandler } from './$types';
import { wholeNumber } from '#core/text/number';
import { fileRequestOf, part } from '$lib/server/http/api';
import { answerLeafText } from '$lib/server/reading/chain';
import { responseOf } from '$lib/server/reading/deliver';

const handle: RequestHandler = part(
	async (event) => responseOf(await answerLeafText(fileRequestOf(event, event.params.slug), wholeNumber(event.params.page, 0))),
	true
);
export const GET = handle;
export const HEAD = handle;
