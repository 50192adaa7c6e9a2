// The PDF itself. In production the node server takes these requests before kit does (reading/deliver.ts), and only
// refusals come here to be worded; both go by the same chain.
import type { RequestHandler } from './$types';
import { fileRequestOf, part } from '$lib/server/http/api';
import { answerFile } from '$lib/server/reading/chain';
import { responseOf } from '$lib/server/reading/deliver';

const handle: RequestHandler = part(async (event) => responseOf(await answerFile(fileRequestOf(event, event.params.slug))), true);
export const GET = handle;
export const HEAD = handle;
