// A document as text: a part of its pages at a time, set as the reader chose.
import type { PageServerLoad } from './$types';
import { canBeShown } from '#core/documents/edition';
import { keptText, textSettingNames, textSettingsOf } from '#core/reading/text-settings';
import { wholeNumber } from '#core/text/number';
import { enter, turnAway } from '$lib/server/http/page';
import { pagesAtOnce, partOf } from '$lib/server/pdf/reading-text';
import { insideFacts } from '$lib/server/reading/document-page';
import { ownReceipt } from '$lib/server/reading/receipts';
import { textFor } from '$lib/server/reading/text';

const cookie = 'ianua_text';

export const load: PageServerLoad = async (event) => {
	const { searchParams } = event.url;
	const entered = await enter(event, event.params.slug, 'read');
	const { found } = entered;
	const { edition } = found;
	const page = Math.min(Math.max(1, wholeNumber(searchParams.get('page'), 1)), Math.max(1, edition.pages));
	const shown = canBeShown(edition);
	const [inside, pages, receipt] = await Promise.all([
		insideFacts(found),
		shown ? textFor(entered, page, event.getClientAddress()).catch(turnAway) : [],
		ownReceipt(found, entered.caller, event.locals.language)
	]);
	const settings = textSettingsOf((name) => searchParams.get(name), event.cookies.get(cookie));
	if (textSettingNames.some((name) => searchParams.has(name)))
		event.cookies.set(cookie, keptText(settings), { path: '/d', maxAge: 365 * 86_400, sameSite: 'lax', secure: event.url.protocol === 'https:' });
	const first = partOf(page) * pagesAtOnce + 1;
	return {
		document: { slug: found.slug, title: found.title, pages: edition.pages, language: edition.language, edition: edition.number, shown },
		outline: inside.outline,
		receipt,
		pages,
		first,
		last: Math.min(edition.pages, first + pagesAtOnce - 1),
		settings,
		from: searchParams.get('from'),
		maySave: entered.may('save'),
		searchable: found.standing.indexable
	};
};
