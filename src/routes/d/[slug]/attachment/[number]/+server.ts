// A file that travels inside the document.
import type { RequestHandler } from './$types';
import { wholeNumber } from '#core/text/number';
import { fileRequestOf, part } from '$lib/server/http/api';
import { answerAttachment } from '$lib/server/reading/chain';
import { responseOf } from '$lib/server/reading/deliver';

const handle: RequestHandler = part(
	async (event) => responseOf(await answerAttachment(fileRequestOf(event, event.params.slug), wholeNumber(event.params.number, 0))),
	true
);
export const GET = handle;
export const HEAD = handle;
