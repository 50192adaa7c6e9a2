// Dead ends and side doors: who sees a placement and cannot open its document, and who can open the document and not the page.
import { difference, everyone, isNobody, type Audience } from '../access/audience';
import { doorInForce } from '../access/standing';
import type { Guarded } from '../access/door';
import type { Instant, Span } from '../access/hours';
import { audienceAt, countIn, isShut, populationAt, type Counted, type Member, type Population } from '../access/population';

export type MismatchKind = 'dead-end' | 'side-door';

/** From one instant to the next at which anything changes. */
export interface MismatchSpan {
	readonly span: Span;
	/** For anyone there may ever be. */
	readonly audience: Audience;
	/** Among the people of that span: how many of those whom the first of the two doors lets in. */
	readonly counted: Counted;
}

export interface Mismatch {
	readonly kind: MismatchKind;
	/** In order, without those in which there is none. */
	readonly spans: readonly MismatchSpan[];
}

/** Whom a page's door lets in, and whom the document's. */
const sides = (kind: MismatchKind, page: Guarded, document: Guarded, at: Instant): [first: Audience, second: Audience] => {
	const [p, x] = [audienceAt(page, at), audienceAt(document, at)];
	// nobody is meant to come to a page that is shut: those who open the document by its address go past nothing
	return kind === 'dead-end' ? [p, x] : [x, isShut(page, at) ? everyone : p];
};

/** Those whom a mismatch is about at an instant, for anyone ever; nobody where there is none. */
export function mismatchAt(kind: MismatchKind, page: Guarded, document: Guarded, at: Instant): Audience {
	const [first, second] = sides(kind, page, document, at);
	return difference(first, second);
}

/** Named people are known one by one: where none of them is meant today, nobody is, though they might leave a group. */
export const isNamedOnly = (audience: Audience): boolean => audience.every(({ all }) => all.some((mark) => mark.kind === 'person'));

/** Instants after `at` at which the hours of either door begin or end. */
function doorBounds(page: Guarded, document: Guarded, at: Instant): Instant[] {
	const bounds = [page, document].flatMap((thing) => {
		const { hours } = doorInForce(thing);
		return [hours.from, hours.until];
	});
	return [...new Set(bounds.filter((b): b is Instant => b !== null && b > at))].sort((a, b) => a - b);
}

/**
 * Whether there is a mismatch now or at any time to come, told from the doors alone: the kinds, with the instant from which.
 * For very many placements at once; `mismatchesOf` then says more of those found.
 */
export function mismatchKinds(page: Guarded, document: Guarded, at: Instant): { kind: MismatchKind; from: Instant; audience: Audience }[] {
	const instants = [at, ...doorBounds(page, document, at)];
	return (['dead-end', 'side-door'] as const).flatMap((kind) => {
		for (const from of instants) {
			const audience = mismatchAt(kind, page, document, from);
			if (!isNobody(audience)) return [{ kind, from, audience }];
		}
		return [];
	});
}

/** The people as they stand at instants, each made once. */
export class Populations {
	readonly #people: readonly Member[];
	readonly #made = new Map<Instant, Population>();
	constructor(people: readonly Member[]) {
		this.#people = people;
	}
	at(instant: Instant): Population {
		let made = this.#made.get(instant);
		if (!made) this.#made.set(instant, (made = populationAt(this.#people, instant)));
		return made;
	}
	/** Instants after `at` at which a membership of one of the groups begins or ends; of any group where `groups` is null. */
	boundsAfter(at: Instant, groups: ReadonlySet<string> | null): Instant[] {
		const bounds = new Set<Instant>();
		for (const person of this.#people) {
			if (person.suspended) continue;
			for (const { group, span } of person.memberships) {
				if (groups && !groups.has(group)) continue;
				for (const bound of [span.from, span.until]) if (bound !== null && bound > at) bounds.add(bound);
			}
		}
		return [...bounds];
	}
}

const sameCount = (a: Counted, b: Counted) => a.anyone === b.anyone && a.count === b.count && a.of === b.of;

/**
 * The mismatches of a document on a page from `at` on, each with its spans: a new one begins wherever the audience or the
 * number of people in it changes.
 */
export function mismatchesOf(page: Guarded, document: Guarded, people: Populations, at: Instant): Mismatch[] {
	const doors = [doorInForce(page), doorInForce(document)];
	const groups = doors.some((d) => d.allMembers) ? null : new Set(doors.flatMap((d) => d.groups));
	const instants = [...new Set([at, ...doorBounds(page, document, at), ...people.boundsAfter(at, groups)])].sort((a, b) => a - b);
	return (['dead-end', 'side-door'] as const).flatMap((kind) => {
		const spans: { span: { from: Instant; until: Instant | null }; audience: Audience; counted: Counted }[] = [];
		instants.forEach((from, i) => {
			const audience = mismatchAt(kind, page, document, from);
			if (isNobody(audience)) return;
			const [first] = sides(kind, page, document, from);
			const counted = countIn(audience, first, people.at(from));
			if (isNamedOnly(audience) && !counted.count) return;
			const until = instants[i + 1] ?? null;
			const last = spans.at(-1);
			if (last?.span.until === from && JSON.stringify(last.audience) === JSON.stringify(audience) && sameCount(last.counted, counted)) last.span.until = until;
			else spans.push({ span: { from, until }, audience, counted });
		});
		return spans.length ? [{ kind, spans }] : [];
	});
}

/** What mends a mismatch in one press. */
export type Remedy = 'restore' | 'page-door' | 'admit' | 'follow' | 'narrow' | 'locked' | 'take-out' | 'intended';

/** The remedies that would help, the likeliest first. */
export function remediesFor(kind: MismatchKind, page: Guarded, document: Guarded): Remedy[] {
	// what is set aside opens to nobody, whatever its door says
	if (document.setAside) return ['restore', 'take-out'];
	const [p, x] = [page.door, doorInForce(document)];
	if (kind === 'side-door') return document.follows ? ['intended'] : ['page-door', 'follow', 'intended'];
	const missing = p.position === 'keyed' && x.position === 'keyed' && (p.groups.some((g) => !x.groups.includes(g)) || (p.allMembers && !x.allMembers));
	return [
		...(missing && !document.follows ? (['admit'] as const) : []),
		...(document.follows ? [] : (['page-door', 'follow'] as const)),
		...(x.position === 'keyed' && !document.follows ? (['narrow'] as const) : []),
		...(x.position === 'keyed' ? (['locked'] as const) : []),
		'take-out'
	];
}
