// A document's cover as JPEG: for programs that show an address as a card, many of which know no other kind.
import type { RequestHandler } from './$types';
import { wholeNumber } from '#core/text/number';
import { fileRequestOf, part } from '$lib/server/http/api';
import { answerCover } from '$lib/server/reading/chain';
import { responseOf } from '$lib/server/reading/deliver';

const handle: RequestHandler = part(
	async (event) => responseOf(await answerCover(fileRequestOf(event, event.params.slug), wholeNumber(event.params.width, 0), 'image/jpeg')),
	false
);
export const GET = handle;
export const HEAD = handle;
