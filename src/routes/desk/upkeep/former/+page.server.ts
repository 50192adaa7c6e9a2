// Former addresses: those that lead to documents, and what was asked for and is not here.
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { formerAddresses, missedAddresses } from '$lib/server/placing/former';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:former');
	const { searchParams } = event.url;
	const q = searchParams.get('q') ?? '';
	const list = await formerAddresses({ q, after: searchParams.get('after') ?? undefined });
	return { ...list, q, missed: await missedAddresses() };
};
