// The language in which a reader is spoken to: the one they chose, else that of the page of the site, else the site's, else the first of their
// browser's that we have.
import { isLanguage, languageFor, type Language } from '#core/words/words';
import { nextTurn } from '../access/hours';
import { Cache } from '../db/cache';
import { sql } from '../db/client';
import { cookieOf } from '../people/who';
import { site } from './site';

export const languageCookie = 'ianua_language';

const cache = new Cache<ReadonlyMap<string, Language>>({ most: 1 });

/**
 * Languages of the pages that have their own, by path; a change made by another server is seen within a second. A page that is answered
 * as if it were not there (unpublished, shut, set aside) has none: its language would tell that it is.
 */
const pageLanguages = (): Promise<ReadonlyMap<string, Language>> =>
	cache.get('pages', async () => {
		const at = Date.now();
		const [rows, until] = await Promise.all([
			sql()<{ path: string; language: Language }[]>`
				select p.path, p.language from page p join thing_in_force t on t.id = p.id and t.kind = 'page'
				where p.language is not null and p.published_id is not null and position_at(t.set_position, t.from_at, t.until_at, ${new Date(at)}) <> 'shut'`,
			nextTurn(at)
		]);
		return { value: new Map(rows.map((r) => [r.path, r.language])), until };
	});

/** `header` gives a header of the request or null; `asked` is what its address asks for, `path` the page of the site, if it may be one. */
export async function languageOf(header: (name: string) => string | null, asked: string | null = null, path: string | null = null): Promise<Language> {
	const chosen = isLanguage(asked) ? asked : cookieOf(header('cookie'), languageCookie);
	const { language, front } = await site();
	const pages = path ? await pageLanguages() : null;
	// read a line above
	const own = path && (pages!.get(path) ?? (path === '/' && front ? pages!.get(front) : null));
	return languageFor(chosen, own || language, header('accept-language'));
}
