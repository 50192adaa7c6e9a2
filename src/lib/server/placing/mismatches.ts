// Dead ends and side doors of what is placed: found for the whole site in one pass, told in words, mended in one press.
import { and, eq } from 'drizzle-orm';
import { audienceWords, type Audience } from '#core/access/audience';
import { doorInForce, isAway } from '#core/access/standing';
import { fieldsShown, type DoorChange, type DoorView, type Guarded } from '#core/access/door';
import { countIn, audienceAt, type Counted, type Population } from '#core/access/population';
import { IanuaError } from '#core/errors';
import { withoutPlacement, withPlacement, type Article, type Layout, type PageContent } from '#core/placing/content';
import { isNamedOnly, mismatchesOf, mismatchKinds, Populations, remediesFor, type MismatchKind, type Remedy } from '#core/placing/mismatch';
import { allMembersOf, allGuarded, type AsIf } from '../access/reach';
import { db, sql } from '../db/client';
import { theRow } from '../db/rows';
import { page as pageTable, sideDoor } from '../db/schema';
import { changeDocument, restore } from '../documents/change';
import { documentView } from '../documents/view';
import { namesOf, personIds } from '../people/directory';
import { groupIds } from '../people/memberships';
import { writeAudit } from '../site/audit';
import { placesOf, type Place } from './placed';
import type { Mend } from './contract';
import { changePage, changePlacement } from './commands';
import { pageDraft } from './views';

/** Some placements: of the whole site as published, of one page's draft, or of one document. */
export interface Which {
	readonly page?: string;
	readonly document?: string;
	/** Of these documents, by id. */
	readonly documents?: readonly string[];
	/** As the draft has it, published or not. */
	readonly draft?: boolean;
	/** Not what is placed: each of these documents as if it stood on each of these pages, by their ids. */
	readonly pairs?: { readonly pages: readonly string[]; readonly documents: readonly string[] };
}

export interface PlacedMismatch {
	readonly kind: MismatchKind;
	readonly pageId: string;
	readonly page: string;
	readonly pageTitle: string;
	readonly documentId: string;
	readonly document: string;
	readonly documentTitle: string;
	readonly placement: string;
	/** From when on; now, or the first instant to come at which somebody is meant. */
	readonly from: string;
	readonly audience: { readonly words: string; readonly people: number; readonly of: number; readonly anyone: boolean };
	readonly remedies: readonly Remedy[];
	/** A side door that is meant to be: why, and by whom that was said. */
	readonly intended: { readonly why: string; readonly by: string | null; readonly at: string } | null;
	/** Of a teaser: the page to which it leads, which is the one that they cannot open; null where it is the document. */
	readonly leadsTo: { readonly path: string; readonly title: string } | null;
	/** The same page by its id, and whether it is out. */
	readonly led: Led | null;
}

interface Led {
	readonly id: string;
	readonly out: boolean;
}

/** As the API gives it. */
export type MismatchJson = Omit<PlacedMismatch, 'documentId' | 'led'>;
/** A mismatch as the API shows it. */
export const mismatchJson = ({ documentId: _id, led: _led, ...mismatch }: PlacedMismatch): MismatchJson => mismatch;

interface Row {
	id: string;
	page_id: string;
	path: string;
	page_title: string;
	document_id: string;
	slug: string;
	title: string;
	form: string;
	locked: boolean;
	led_id: string | null;
	led_path: string | null;
	led_title: string | null;
	led_out: boolean | null;
	why: string | null;
	marked_by: string | null;
	marked_at: Date | null;
}

async function placed({ page, document, documents, draft = false, pairs }: Which): Promise<Row[]> {
	const s = sql();
	if (pairs)
		return s<Row[]>`
			select '' as id, p.id as page_id, p.path, p.title as page_title, d.id as document_id, d.slug, d.title, 'text' as form, false as locked,
				null as led_id, null as led_path, null as led_title, null as led_out, null as why, null as marked_by, null as marked_at
			from page p cross join document d where p.id = any(${[...pairs.pages]}::uuid[]) and d.id = any(${[...pairs.documents]}::uuid[]) order by p.path, d.title`;
	return s<Row[]>`
		select x.id, x.page_id, p.path, p.title as page_title, x.document_id, d.slug, d.title, x.form, x.locked,
			l.id as led_id, l.path as led_path, l.title as led_title, l.published_id is not null and l.set_aside_at is null as led_out,
			i.why, (select name from person where id = i.marked_by) as marked_by, i.marked_at
		from placement x join page p on p.id = x.page_id join document d on d.id = x.document_id
			left join page l on l.id = x.leads_to
			left join side_door i on i.page_id = x.page_id and i.document_id = x.document_id
		where x.published = ${!draft} and p.set_aside_at is null and d.gone_at is null and x.form <> 'list'
			and (x.leads_to is null or l.id <> p.id)
			${page ? s`and p.id = ${page}` : s``} ${document ? s`and d.slug = ${document}` : s``} ${documents ? (documents.length ? s`and d.id in ${s(documents)}` : s`and false`) : s``}
		order by p.path, d.title, x.id`;
}

/** What a door decides by, as a text: placements between alike doors are alike. */
function markOf(thing: Guarded): string {
	const door = doorInForce(thing);
	return JSON.stringify([isAway(thing), door.position, door.allMembers, door.groups, door.people, door.hours, thing.follows !== null]);
}

type Kind = { kind: MismatchKind; from: number; audience: Audience; counted: Counted; remedies: readonly Remedy[] };

function kindsOf(page: Guarded, document: Guarded, population: Population): Kind[] {
	const { at } = population;
	return mismatchKinds(page, document, at).flatMap(({ kind, from, audience }) => {
		// those of today, also where it only begins later
		const first = audienceAt(kind === 'dead-end' ? page : document, from);
		const counted = countIn(audience, first, population);
		return isNamedOnly(audience) && !counted.count ? [] : [{ kind, from, audience, counted, remedies: remediesFor(kind, page, document) }];
	});
}

/** Pages and documents as the decision sees them, with the people of today and their names. Of very many, all are read. */
function thingsOf(places: readonly Ends[], asIf: AsIf | null = null) {
	const some = (of: readonly string[]) => {
		const ids = [...new Set(of)];
		return ids.length > 1000 ? ('all' as const) : ids;
	};
	const pages = places.map((p) => p.pageId);
	return Promise.all([
		allGuarded({
			pages: some([...pages, ...places.flatMap((p) => p.led?.id ?? [])]),
			documents: some(places.map((p) => p.documentId)),
			asPublished: [...new Set(pages)],
			asIf
		}),
		allMembersOf(),
		namesOf()
	]);
}

/** Where a placement stands, and where it leads: to its document, or as a teaser to a page. */
type Ends = Pick<PlacedMismatch, 'pageId' | 'documentId' | 'led'>;

/** The page, and what a press on it leads to, as the decision sees them; a teaser's page that is not out is as one set aside. */
function endsOf({ pageId, documentId, led }: Ends, things: ReadonlyMap<string, Guarded>): [page: Guarded | undefined, other: Guarded | undefined] {
	const page = things.get(pageId);
	if (!led) return [page, things.get(documentId)];
	const other = things.get(led.id) ?? page;
	return [page, other && !led.out ? { ...other, setAside: true } : other];
}

const ledOf = ({ led_id, led_out }: Row): Led | null => (led_id === null ? null : { id: led_id, out: led_out === true });

/**
 * The dead ends and side doors of some placements, the worst first; those that are met (locked cards) are left out. `asIf` tells of them as they
 * would be.
 */
export async function mismatches(which: Which = {}, at = Date.now(), asIf: AsIf | null = null): Promise<PlacedMismatch[]> {
	const rows = await placed(which);
	if (!rows.length) return [];
	const [things, people, names] = await thingsOf(
		rows.map((r) => ({ pageId: r.page_id, documentId: r.document_id, led: ledOf(r) })),
		asIf
	);
	const population = new Populations(people).at(at);
	const marks = new Map<Guarded, string>();
	// set a moment before
	const mark = (thing: Guarded) => marks.get(thing) ?? (marks.set(thing, markOf(thing)), marks.get(thing)!);
	const known = new Map<string, Kind[]>();
	const words = new Map<Audience, string>();
	const found: PlacedMismatch[] = [];
	for (const row of rows) {
		const led = ledOf(row);
		const [page, document] = endsOf({ pageId: row.page_id, documentId: row.document_id, led }, things);
		if (!page || !document) continue;
		// by the page itself where the document follows it, whatever the page's door is
		const key = `${mark(page)} ${mark(document)}`;
		let kinds = known.get(key);
		if (!kinds) known.set(key, (kinds = kindsOf(page, document, population)));
		for (const { kind, from, audience, counted, remedies } of kinds) {
			if (kind === 'dead-end' && row.locked) continue;
			// a page is met in more places than through a teaser
			if (kind === 'side-door' && led) continue;
			let said = words.get(audience);
			if (said === undefined) words.set(audience, (said = audienceWords(audience, names)));
			found.push({
				kind,
				pageId: row.page_id,
				page: row.path,
				pageTitle: row.page_title,
				documentId: row.document_id,
				document: row.slug,
				documentTitle: row.title,
				placement: row.id,
				from: new Date(from).toISOString(),
				audience: { words: said, people: counted.count, of: counted.of, anyone: counted.anyone },
				remedies: led
					? remedies.filter((r) => r === 'locked' || r === 'take-out')
					: row.form === 'entry'
						? remedies.filter((r) => r !== 'locked' && r !== 'take-out')
						: remedies,
				leadsTo: row.led_path === null ? null : { path: row.led_path, title: row.led_title ?? row.led_path },
				led,
				// who marked it and when stand together with why
				intended: kind === 'side-door' && row.why !== null ? { why: row.why, by: row.marked_by, at: row.marked_at!.toISOString() } : null
			});
		}
	}
	return found.map((one) => ({ one, order: orderOf(one, at) })).sort((a, b) => (a.order < b.order ? -1 : 1)).map(({ one }) => one); // prettier-ignore
}

/**
 * Where a mismatch stands among all, as text that sorts so: dead ends before side doors, what is before what comes, what nobody meant before what
 * somebody did; then by how many it meets, then by page.
 */
export function orderOf({ intended, kind, from, audience, page, placement, document }: PlacedMismatch, at: number): string {
	const weight = (intended ? 4 : 0) + (kind === 'dead-end' ? 0 : 2) + (Date.parse(from) > at ? 1 : 0);
	return [weight, audience.anyone ? 0 : 1, String(999_999_999 - audience.people).padStart(9, '0'), page, placement, document].join(' ');
}

/** The door that a change of documents' doors would make. Throws where it names a group, a person or a page that is not there. */
async function asIfOf({ position, allMembers, groups, people, follows, from, until }: DoorChange): Promise<AsIf> {
	const door = {
		...(position === undefined ? {} : { position }),
		...(allMembers === undefined ? {} : { allMembers }),
		...(groups ? { groups: [...(await groupIds(db(), groups)).values()] } : {}),
		...(people ? { people: [...(await personIds(db(), people)).values()] } : {}),
		...(from === undefined ? {} : { from }),
		...(until === undefined ? {} : { until })
	};
	if (follows === undefined) return { door };
	if (follows === null) return { door, follows: null };
	const [page] = await sql()<{ id: string; unpublished: boolean }[]>`select id, published_id is null as unpublished from page where path = ${follows}`;
	if (!page) throw new IanuaError('page-unknown', { path: follows });
	const followed = (await allGuarded({ pages: [page.id] })).get(page.id);
	return { door, follows: followed ? { setAside: false, unpublished: page.unpublished, door: followed.door } : null };
}

/** Places on published pages whose readers a change of the documents' doors would turn away, and who are let in now. */
export async function placesBroken(slugs: readonly string[], change: DoorChange): Promise<Place[]> {
	const asIf = await asIfOf(change);
	if (!Object.keys(asIf.door).length && asIf.follows === undefined) return [];
	const places = await placesOf(slugs);
	if (!places.length) return [];
	const s = sql();
	const documents = (await s<{ id: string }[]>`select id from document where slug in ${s(slugs)}`).map(({ id }) => id);
	const at = Date.now();
	const deadEnds = async (as: AsIf | null) =>
		new Map((await mismatches({ documents }, at, as)).filter((f) => f.kind === 'dead-end').map((f) => [`${f.pageId} ${f.placement}`, f]));
	const [before, after] = [await deadEnds(null), await deadEnds(asIf)];
	const worse = [...after].filter(([name, { audience, from }]) => {
		const was = before.get(name);
		return !was || audience.people > was.audience.people || (audience.anyone && !was.audience.anyone) || from < was.from;
	});
	const found = new Map(worse.map(([, f]) => [`${f.page} ${f.placement}`, f]));
	return places.flatMap((place) => {
		const f = found.get(`${place.page} ${place.placement}`);
		return f ? [{ ...place, audience: f.audience }] : [];
	});
}

export interface Interval {
	readonly from: string;
	readonly until: string | null;
	readonly words: string;
	readonly people: number;
	readonly of: number;
	readonly anyone: boolean;
}

/** The spans of mismatches, over all time to come, in the order of `found`. */
export async function intervalsOf(found: readonly PlacedMismatch[], at = Date.now()): Promise<Interval[][]> {
	const [things, people, names] = await thingsOf(found);
	const populations = new Populations(people);
	return found.map((f) => {
		const [page, document] = endsOf(f, things);
		if (!page || !document) return [];
		const spans = mismatchesOf(page, document, populations, at).find((m) => m.kind === f.kind)?.spans ?? [];
		return spans.map(({ span, audience, counted }) => ({
			from: new Date(span.from ?? at).toISOString(),
			until: span.until === null ? null : new Date(span.until).toISOString(),
			words: audienceWords(audience, names),
			people: counted.count,
			of: counted.of,
			anyone: counted.anyone
		}));
	});
}

/** Who a door admits and when, as a change that makes another door alike; allowance, listing and words stay as they are. */
function asChange(door: DoorView): DoorChange {
	const { position, allMembers, groups, people, from, until } = fieldsShown(door);
	return { position, allMembers, groups: [...groups], people: [...people], from, until };
}

/** Does what a remedy says. Gives the door that was changed as it was before, for undo. */
export async function mend(given: Mend, actor: string): Promise<{ before: { document?: DoorChange; page?: DoorChange } }> {
	const [page, document] = [await pageDraft(given.page), await documentView(given.document)];
	if (!document || document.goneAt) throw new IanuaError('document-unknown', { slug: given.document });
	const set = async (change: DoorChange) => {
		const { before } = await changeDocument(document.slug, { door: change }, actor);
		return { before: { document: before.door } };
	};
	switch (given.remedy) {
		case 'page-door':
			return set({ ...asChange(page.door), follows: null });
		case 'admit':
			return set({
				groups: [...new Set([...document.door.groups, ...page.door.groups].map((g) => g.slug))],
				...(page.door.allMembers ? { allMembers: true } : {})
			});
		case 'follow':
			return set({ follows: page.path });
		case 'restore':
			await restore(document.slug, actor);
			return { before: {} };
		case 'narrow':
			return { before: { page: (await changePage(page.id, { door: asChange(document.door) }, actor)).door } };
		case 'locked':
		case 'take-out': {
			const { placement, remedy } = given;
			if (!placement) throw new IanuaError('not-valid', { detail: 'which placement is not said' });
			if (remedy === 'locked' && page.layout !== 'article') throw new IanuaError('not-valid', { detail: 'only an article has locked cards' });
			const locked = (content: PageContent) => withPlacement(content as Article, placement, (attrs) => ({ ...attrs, locked: true }));
			const change = (layout: Layout, content: PageContent) => (remedy === 'locked' ? locked(content) : withoutPlacement(layout, content, placement));
			await changePlacement(page.id, placement, change, actor);
			return { before: {} };
		}
		case 'intended':
			if (!given.undo && !given.why?.trim()) throw new IanuaError('not-valid', { detail: 'a side door that is meant to be needs a reason' });
			await db().transaction(async (tx) => {
				await tx.delete(sideDoor).where(and(eq(sideDoor.pageId, page.id), eq(sideDoor.documentId, document.id)));
				// without undo there are words, checked above
				if (!given.undo) await tx.insert(sideDoor).values({ pageId: page.id, documentId: document.id, why: given.why!.trim(), markedBy: actor });
				const row = theRow(await tx.select({ path: pageTable.path }).from(pageTable).where(eq(pageTable.id, page.id)));
				await writeAudit(tx, {
					actor,
					action: 'changed',
					kind: 'document',
					thing: document.id,
					// without undo there are words, checked above
					after: { sideDoor: row.path, meant: !given.undo, ...(given.undo ? {} : { why: given.why!.trim() }) }
				});
			});
			return { before: {} };
	}
}
