// Find in the pages of the site, for its readers: the published ones that they may open.
import { isListed } from '#core/access/decide';
import { isAnnounced } from '#core/access/standing';
import type { Layout, PageContent } from '#core/placing/content';
import { fitOf, pageLines, type FoundLine } from '#core/placing/find';
import type { Language } from '#core/words/words';
import { announcedFor } from '../access/announced';
import { guardedOf, type GuardedRow } from '../access/doors';
import { sql } from '../db/client';
import { instantOf, type Caller } from '../people/who';
import { site } from '../site/site';

export interface FoundPage {
	readonly path: string;
	readonly title: string;
	readonly language: Language | null;
	readonly stretches: FoundLine['stretches'];
	/** For whom it is kept, where they may know of it and not open it. */
	readonly kept: string | null;
}

/** Lines of published revisions, by their ids: a revision does not change. */
const kept = new Map<string, readonly string[]>();
/** More revisions than any site shows at once: beyond them, what is kept is forgotten. */
const mostKept = 5000;

async function linesOf(ids: readonly string[]): Promise<Map<string, readonly string[]>> {
	const unknown = ids.filter((id) => !kept.has(id));
	if (kept.size + unknown.length > mostKept) kept.clear();
	if (unknown.length) {
		const rows = await sql()<{ id: string; layout: Layout; content: PageContent }[]>`
			select r.id, p.layout, r.content from revision r join page p on p.id = r.page_id where r.id = any(${ids.filter((id) => !kept.has(id))}::uuid[])`;
		for (const { id, layout, content } of rows) kept.set(id, pageLines(layout, content));
	}
	return new Map(ids.map((id) => [id, kept.get(id) ?? []]));
}

/** The pages that a query fits, the best first, at most `limit` of them; one at a door that is ajar is found by those alone who would be let in if it were keyed. */
export async function findPages(caller: Caller, q: string, language: Language, limit = 10): Promise<FoundPage[]> {
	if (!q.trim()) return [];
	const [rows, { zone }] = await Promise.all([
		sql()<(GuardedRow & { path: string; title: string; language: Language | null; revision: string })[]>`
			select p.path, r.title, p.language, r.id as revision, p.set_aside_at, door_json(p.door_id) as door
			from page p join revision r on r.id = p.published_id where p.set_aside_at is null order by p.path`,
		site()
	]);
	const at = instantOf(caller);
	// what somebody may see is worked out first; of what is announced nothing is looked at but its title
	const known = rows.flatMap((row) => {
		const thing = guardedOf(row, zone);
		const isOpen = isListed(caller.who, thing, at);
		return isOpen || isAnnounced(thing, at) ? [{ ...row, kept: isOpen ? null : thing }] : [];
	});
	const lines = await linesOf(known.filter((row) => !row.kept).map((row) => row.revision));
	const best = known
		.flatMap(({ path, title, language: written, revision, kept }) => {
			const fit = fitOf(title, (kept ? null : lines.get(revision)) ?? [], q);
			return fit ? [{ path, title, language: written, stretches: kept ? [] : fit.stretches, kept, rank: fit.rank }] : [];
		})
		.sort((a, b) => b.rank - a.rank || (a.path < b.path ? -1 : 1))
		.slice(0, limit);
	return Promise.all(best.map(async ({ rank: _rank, kept, ...page }) => ({ ...page, kept: kept && (await announcedFor(kept, at, language)) })));
}
