// What is kept of readers, made from the settings in force.
import type { PageServerLoad } from './$types';
import { asksForLittle, readershipOf } from '#core/readership/settings';
import { givesPasses } from '$lib/server/access/websites';
import { anyReceipts } from '$lib/server/reading/receipts';
import { site } from '$lib/server/site/site';

export const csr = false;

export const load: PageServerLoad = async ({ request: { headers } }) => {
	const [{ readership }, passes, receipts] = await Promise.all([site(), givesPasses(), anyReceipts()]);
	const { nameless, months } = readershipOf(readership);
	return { nameless, months, passes, receipts, asks: asksForLittle({ gpc: headers.get('sec-gpc'), dnt: headers.get('dnt') }) };
};
