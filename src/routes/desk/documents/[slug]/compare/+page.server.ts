// What changed between two editions.
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { IanuaError } from '#core/errors';
import { wholeNumber } from '#core/text/number';
import { staff } from '$lib/server/guard/guard';
import { compareEditions } from '$lib/server/documents/compare';
import { documentView } from '$lib/server/documents/view';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:document');
	const { params, url } = event;
	const view = await documentView(params.slug);
	if (!view) error(404, { code: 'not-found', message: 'There is no document at this address.' });
	// without numbers: the edition in force and the one before it
	const usual = view.editions.find((e) => e.inForce)!.number;
	const number = (name: string, otherwise: number) => wholeNumber(url.searchParams.get(name), otherwise);
	try {
		const compared = await compareEditions(view.slug, number('before', Math.max(1, usual - 1)), number('after', usual));
		return {
			slug: view.slug,
			title: view.title,
			editions: view.editions.map((e) => e.number),
			compared,
			/** The later one is what stands at the document's web address now, and nobody has said yet what is to become of it. */
			offered: view.source?.state === 'changed' && view.source.beside === compared.after.number && compared.after.number !== usual
		};
	} catch (refusal) {
		if (refusal instanceof IanuaError) error(refusal.status, { code: refusal.code, message: refusal.message });
		throw refusal;
	}
};
