// Audiences: who is meant, for anyone there may ever be, and among the people of today. Which audience a door lets in is decide.ts's.
// An audience is a union of terms; a term is whoever has every mark in `all` and none in `none`. Groups lie within all members; otherwise
// no mark says anything of another, but that nobody is two people.

/** What an audience is told by. `all-members`: whoever has any membership that is current; `person`: by name, with or without one. */
export type Mark = { readonly kind: 'all-members' } | { readonly kind: 'group'; readonly id: string } | { readonly kind: 'person'; readonly id: string };

export interface Term {
	readonly all: readonly Mark[];
	readonly none: readonly Mark[];
}

export type Audience = readonly Term[];

export const nobody: Audience = [];
export const everyone: Audience = [{ all: [], none: [] }];
export const allMembers: Mark = { kind: 'all-members' };
/** The mark of a group’s members. */
export const groupMark = (id: string): Mark => ({ kind: 'group', id });
/** The mark of one person. */
export const personMark = (id: string): Mark => ({ kind: 'person', id });

/** Whoever has any of the marks. */
export const anyOf = (marks: readonly Mark[]): Audience => simplified(marks.map((mark) => ({ all: [mark], none: [] })));

/** Whoever is in one or the other. */
export const union = (a: Audience, b: Audience): Audience => simplified([...a, ...b]);

/** Whoever is in both. */
export const intersection = (a: Audience, b: Audience): Audience =>
	simplified(a.flatMap((x) => b.map((y) => ({ all: [...x.all, ...y.all], none: [...x.none, ...y.none] }))));

/** Whoever is in the first and not in the second. Example: all members without Lock wardens. */
export function difference(a: Audience, b: Audience): Audience {
	let rest = a;
	for (const term of b) {
		// not (all and none of these) = lacks one of these, or has one of those
		const outside: Audience = [...term.all.map((mark) => ({ all: [], none: [mark] })), ...term.none.map((mark) => ({ all: [mark], none: [] }))];
		rest = intersection(rest, outside);
	}
	return rest;
}

/** Whether nobody can be in it, whoever joins which group later. */
export const isNobody = (a: Audience): boolean => simplified(a).length === 0;

/** Whether the second lies within the first, whoever joins which group later. */
export const includes = (a: Audience, b: Audience): boolean => isNobody(difference(b, a));

const same = (a: Mark, b: Mark): boolean => a.kind === b.kind && (a.kind === 'all-members' || a.id === (b as { id: string }).id);
/** Whether having one mark is having the other too. */
const implies = (a: Mark, b: Mark): boolean => same(a, b) || (a.kind === 'group' && b.kind === 'all-members');

function possible({ all, none }: Term): boolean {
	if (all.some((mark) => none.some((not) => implies(mark, not)))) return false;
	const people = all.filter((m) => m.kind === 'person');
	return people.every((m) => same(m, people[0]!));
}

/** Whether whoever fits the first fits the second, told from the marks alone. */
function within(a: Term, b: Term): boolean {
	return (
		b.all.every((mark) => a.all.some((m) => implies(m, mark))) &&
		b.none.every((not) => a.none.some((n) => implies(not, n)) || (not.kind === 'person' && a.all.some((m) => m.kind === 'person' && m.id !== not.id)))
	);
}

const order = (m: Mark): string => `${['all-members', 'group', 'person'].indexOf(m.kind)} ${m.kind === 'all-members' ? '' : m.id}`;
const sorted = (marks: readonly Mark[]): Mark[] => [...marks].sort((a, b) => (order(a) < order(b) ? -1 : 1));

/** A term without what goes without saying. */
function tidy({ all, none }: Term): Term {
	const needed = all.filter((mark, i) => !all.some((m, j) => i !== j && implies(m, mark) && !(same(m, mark) && j > i)));
	const named = needed.some((m) => m.kind === 'person');
	const left = none.filter((not, i) => !none.some((n, j) => i !== j && implies(not, n) && !(same(n, not) && j > i)) && !(named && not.kind === 'person'));
	return { all: sorted(needed), none: sorted(left) };
}

/** The same audience without terms that nobody fits and terms that lie within others. */
function simplified(terms: Audience): Audience {
	const kept = terms.filter(possible).map(tidy);
	return kept.filter((term, i) => !kept.some((other, j) => i !== j && within(term, other) && !(within(other, term) && j > i)));
}

// ---- among the people of today

/** A person of today as marks see them. Suspended people have no marks at all. */
export interface Marked {
	readonly id: string;
	readonly groups: ReadonlySet<string>;
}

/** Whether somebody is in an audience; null is somebody without a sign-in. */
export function isIn(a: Audience, person: Marked | null): boolean {
	const bears = (mark: Mark) =>
		person !== null && (mark.kind === 'person' ? mark.id === person.id : mark.kind === 'group' ? person.groups.has(mark.id) : person.groups.size > 0);
	return a.some(({ all, none }) => all.every(bears) && !none.some(bears));
}

// ---- in words

/** Names for ids. */
export interface Names {
	readonly group: (id: string) => string;
	readonly person: (id: string) => string;
}

/** An audience in words. Example: 'all members without Lock wardens'. */
export function audienceWords(a: Audience, names: Names): string {
	if (!a.length) return 'nobody';
	const word = (mark: Mark) => (mark.kind === 'all-members' ? 'all members' : mark.kind === 'group' ? names.group(mark.id) : names.person(mark.id));
	const list = (words: readonly string[]) => (words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`);
	// what leaves out the same is said together
	const byNone = new Map<string, { heads: string[]; none: readonly Mark[] }>();
	for (const { all, none } of a) {
		const [first, ...more] = all.map(word);
		const head = first === undefined ? 'everyone' : more.length ? `${first} who are also ${list(more)}` : first;
		const key = none.map(order).join();
		byNone.set(key, { heads: [...(byNone.get(key)?.heads ?? []), head], none });
	}
	return [...byNone.values()].map(({ heads, none }) => list(heads) + (none.length ? ` without ${list(none.map(word))}` : '')).join('; also ');
}
