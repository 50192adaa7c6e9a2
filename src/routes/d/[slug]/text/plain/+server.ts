// The reading text as plain text, all of it, for programs.
import type { RequestHandler } from './$types';
import { fileRequestOf, part } from '$lib/server/http/api';
import { answerPlainText } from '$lib/server/reading/text';
import { responseOf } from '$lib/server/reading/deliver';

const handle: RequestHandler = part(async (event) => responseOf(await answerPlainText(fileRequestOf(event, event.params.slug))), true);
export const GET = handle;
export const HEAD = handle;
