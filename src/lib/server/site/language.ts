// The language in which a reader is spoken to: the one they chose, else that of the page of the site, else the site's, else the first of their
// browser's that we have.
import { isLanguage, languageFor, type Language } from '#core/words/words';
import { sql } from '../db/client';
import { cookieOf } from '../people/who';
import { site } from './site';

export const languageCookie = 'ianua_language';

const keepFor = 5_000;
let kept: { pages: Promise<Map<string, Language>>; at: number } | undefined;

/**
 * Languages of the pages that have their own, by path; a change made by another server is seen within five seconds. A page that is answered
 * as if it were not there (unpublished, shut, set aside) has none: its language would tell that it is.
 */
function pageLanguages(): Promise<Map<string, Language>> {
	if (!kept || Date.now() - kept.at > keepFor) {
		const pages = sql()<{ path: string; language: Language }[]>`
			select p.path, p.language from page p join thing_in_force t on t.id = p.id and t.kind = 'page'
			where p.language is not null and p.published_id is not null and position_at(t.set_position, t.from_at, t.until_at, now()) <> 'shut'`.then(
			(rows) => new Map(rows.map((r) => [r.path, r.language]))
		);
		pages.catch(() => (kept = undefined));
		kept = { pages, at: Date.now() };
	}
	return kept.pages;
}

/** Has the pages’ languages read anew at the next request. */
export const forgetPageLanguages = (): void => void (kept = undefined);

/** `header` gives a header of the request or null; `asked` is what its address asks for, `path` the page of the site, if it may be one. */
export async function languageOf(header: (name: string) => string | null, asked: string | null = null, path: string | null = null): Promise<Language> {
	const chosen = isLanguage(asked) ? asked : cookieOf(header('cookie'), languageCookie);
	const { language, front } = await site();
	const pages = path ? await pageLanguages() : null;
	// read a line above
	const own = path && (pages!.get(path) ?? (path === '/' && front ? pages!.get(front) : null));
	return languageFor(chosen, own || language, header('accept-language'));
}
