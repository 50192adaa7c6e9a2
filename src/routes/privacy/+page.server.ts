// What is kept of readers, made from the settings in force.
import type { PageServerLoad } from './$types';
import { asksForLittle, readershipOf } from '#core/readership/settings';
import { givesPasses } from '$lib/server/access/websites';
import { site } from '$lib/server/site/site';

export const csr = false;

export const load: PageServerLoad = async ({ request: { headers } }) => {
	const [{ readership }, passes] = await Promise.all([site(), givesPasses()]);
	const { nameless, months } = readershipOf(readership);
	return { nameless, months, passes, asks: asksForLittle({ gpc: headers.get('sec-gpc'), dnt: headers.get('dnt') }) };
};
