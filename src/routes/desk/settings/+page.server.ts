// Settings of one's own: tokens for programs.
import type { PageServerLoad } from './$types';
import { listTokens } from '$lib/server/people/tokens';
import { settings } from '$lib/server/settings';

export const load: PageServerLoad = async ({ locals }) => ({ tokens: await listTokens(locals.caller.person!.id), origin: settings().IANUA_ORIGIN });
