// Stamped copies: whose a saved copy is, by the number on its pages.
import { randomBytes } from 'node:crypto';
import { dayOf } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { stampNumber, stampNumbersIn, stampWords } from '#core/reading/stamp';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { exists, original } from '../store/store';
import { makeStamped, stampedPath } from '../pdf/stamp';
import { wordsOf } from '../pdf/text';
import { site } from '../site/site';
import type { Resolved } from './resolve';
import type { RequestContext } from './record';

/**
 * The copy for whoever saves, where the door wants stamps: with the name of a member, the label of a key, or “a visitor”. One number for
 * each holder, edition and day, so that a save that is broken off goes on with the same bytes. Null where the original is given: to staff,
 * and where the door wants no stamps.
 */
export async function stampFor(found: Resolved, asker: RequestContext): Promise<{ number: string; path: string } | null> {
	const { person, who } = asker.caller;
	if (!found.stamped || who.kind === 'staff') return null;
	const s = sql();
	const [{ zone }, [key]] = await Promise.all([
		site(),
		person || !asker.key ? [undefined] : s<{ label: string }[]>`select label from door_key where id = ${asker.key}::uuid`
	]);
	const holder = person ? `p:${person.id}` : asker.key ? `k:${asker.key}` : 'v';
	const [name, day] = [person?.name ?? key?.label ?? 'a visitor', dayOf(Date.now(), zone)];
	const stamp = theRow(
		await s<{ number: string; name: string }[]>`
		with made as (
			insert into stamp (number, document_id, edition_id, name, holder, day)
			values (${stampNumber(randomBytes(10))}, ${found.id}, ${found.edition.id}, ${name}, ${holder}, ${day})
			on conflict (edition_id, holder, day) do update set name = stamp.name returning number, name
		) select number, name from made`
	);
	const { sha256, sizes } = found.edition;
	const path = stampedPath(sha256, stamp.number);
	if (await exists(path)) return { number: stamp.number, path };
	const words = stampWords(stamp.name, day, stamp.number);
	const made = await makeStamped({ path: await original(sha256), sha256 }, { number: stamp.number, words }, sizes[0] ?? { width: 595, height: 842 });
	// without its stamp a copy does not leave
	if (!made) throw new IanuaError('stamp-not-made');
	return { number: stamp.number, path: made };
}

export interface StampOwner {
	readonly number: string;
	readonly name: string;
	readonly kind: 'member' | 'key' | 'visitor';
	/** The member's id, where they are still here. */
	readonly person: string | null;
	readonly document: { readonly slug: string; readonly title: string };
	readonly edition: number;
	readonly day: string;
	/** How often a copy with this number was saved. */
	readonly saves: number;
}

/** Pages looked at for a stamp: it stands on every one of them. */
const mostPages = 50;

/** Whose copy a file is, by the numbers on its pages. Empty where it carries no stamp of this site. */
export async function ownersOf(path: string): Promise<StampOwner[]> {
	const { pages } = await wordsOf(path, mostPages);
	const numbers = [...new Set(pages.flatMap(stampNumbersIn))].slice(0, 500);
	if (!numbers.length) return [];
	const s = sql();
	const rows = await s<(Omit<StampOwner, 'document' | 'kind'> & { holder: string; slug: string; title: string })[]>`
		select t.number, t.name, t.holder, t.day::text as day, d.slug, d.title, e.number as edition, p.id as person,
			(select count(*)::int from ledger l where l.stamp = t.number) as saves
		from stamp t join document d on d.id = t.document_id join edition e on e.id = t.edition_id
			left join person p on t.holder = 'p:' || p.id where t.number in ${s(numbers)} order by t.at`;
	return rows.map(({ holder, slug, title, ...row }) => ({
		...row,
		kind: holder === 'v' ? 'visitor' : holder.startsWith('k:') ? 'key' : 'member',
		document: { slug, title }
	}));
}
