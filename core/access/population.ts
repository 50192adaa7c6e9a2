// The people of today, made ready to be counted for very many doors in one pass.
import type { Membership, Who } from './decide';
import { doorInForce, isAway } from './standing';
import { anyOf, allMembers, everyone, groupMark, nobody, personMark, type Audience, type Mark } from './audience';
import type { Door, Guarded } from './door';
import { within, type Instant } from './hours';

/** A person with a sign-in who is not staff. */
export interface Member {
	readonly id: string;
	readonly suspended: boolean;
	readonly memberships: readonly Membership[];
}

/** Sets of people as bits: 10,000 people are 313 words, so that ten thousand unions take well under a second. */
export interface Population {
	readonly at: Instant;
	readonly ids: readonly string[];
	/** Who is in a group at the instant. */
	readonly groups: ReadonlyMap<string, Uint32Array>;
	/** Who is in any group at the instant. */
	readonly members: Uint32Array;
	readonly place: ReadonlyMap<string, number>;
	/** Everybody who is not suspended. */
	readonly known: Uint32Array;
}

/** The people as they stand at an instant. */
export function populationAt(people: readonly Member[], at: Instant): Population {
	const words = Math.ceil(people.length / 32);
	const groups = new Map<string, Uint32Array>();
	const members = new Uint32Array(words);
	const place = new Map<string, number>();
	const known = new Uint32Array(words);
	people.forEach((person, i) => {
		if (person.suspended) return;
		place.set(person.id, i);
		known[i >> 5]! |= 1 << (i & 31);
		for (const { group, span } of person.memberships) {
			if (within(span, at) !== 'in') continue;
			let bits = groups.get(group);
			if (!bits) groups.set(group, (bits = new Uint32Array(words)));
			bits[i >> 5]! |= 1 << (i & 31);
			members[i >> 5]! |= 1 << (i & 31);
		}
	});
	return { at, ids: people.map((p) => p.id), groups, members, place, known };
}

/** The door a thing has at an instant, null where it is as good as shut: set aside, shut, or outside its hours. */
function standing(thing: Guarded, at: Instant): Door | null {
	if (isAway(thing)) return null;
	const door = doorInForce(thing);
	return door.position === 'shut' || within(door.hours, at) !== 'in' ? null : door;
}

/** Whether a thing is as good as shut at an instant. */
export const isShut = (thing: Guarded, at: Instant): boolean => standing(thing, at) === null;

/** Whom a thing lets in at an instant, staff and keys apart, as it stands for anyone ever. */
export function audienceAt(thing: Guarded, at: Instant): Audience {
	const door = standing(thing, at);
	if (!door) return nobody;
	if (door.position !== 'keyed') return everyone;
	return anyOf([...(door.allMembers ? [allMembers] : []), ...door.groups.map(groupMark), ...door.people.map(personMark)]);
}

/** Who may open a thing: `anyone` where visitors may; else how many people of today, staff and keys apart. */
export interface Reached {
	readonly anyone: boolean;
	readonly count: number;
	/** Who they are, by their places in the population. */
	readonly bits: Uint32Array | null;
}

/**
 * Whom a thing reaches among the people of a population, at its instant. The same people as `decide` lets in one by one.
 */
export function reach(thing: Guarded, population: Population): Reached {
	const door = standing(thing, population.at);
	if (!door) return { anyone: false, count: 0, bits: null };
	if (door.position !== 'keyed') return { anyone: true, count: population.place.size, bits: null };
	const bits = new Uint32Array(population.members.length);
	const sets = [...(door.allMembers ? [population.members] : []), ...door.groups.flatMap((id) => population.groups.get(id) ?? [])];
	for (const set of sets) for (let i = 0; i < set.length; i++) bits[i]! |= set[i]!;
	for (const id of door.people) {
		const index = population.place.get(id);
		if (index !== undefined) bits[index >> 5]! |= 1 << (index & 31);
	}
	let count = 0;
	for (const word of bits) count += ones(word);
	return { anyone: false, count, bits };
}

/** How many of an audience there are today. */
export interface Counted {
	/** Visitors are among them: then nobody is counted. */
	readonly anyone: boolean;
	readonly count: number;
	/** Of how many. */
	readonly of: number;
}

/** How many people of a population an audience is, among those of another in which it lies. */
export function countIn(audience: Audience, within: Audience, population: Population): Counted {
	if (audience.some((term) => !term.all.length)) return { anyone: true, count: 0, of: 0 };
	return { anyone: false, count: sum(bitsOf(audience, population)), of: sum(bitsOf(within, population)) };
}

function sum(bits: Uint32Array): number {
	let n = 0;
	for (let i = 0; i < bits.length; i++) n += ones(bits[i]!);
	return n;
}

function bitsOf(audience: Audience, { groups, members, place, known }: Population): Uint32Array {
	const size = members.length;
	const empty = new Uint32Array(size);
	const marked = (mark: Mark): Uint32Array => {
		if (mark.kind === 'all-members') return members;
		if (mark.kind === 'group') return groups.get(mark.id) ?? empty;
		const one = new Uint32Array(size);
		const index = place.get(mark.id);
		if (index !== undefined) one[index >> 5]! |= 1 << (index & 31);
		return one;
	};
	const out = new Uint32Array(size);
	for (const { all, none } of audience) {
		const [has, lacks] = [all.map(marked), none.map(marked)];
		for (let i = 0; i < size; i++) {
			let word = known[i]!;
			for (const bits of has) word &= bits[i]!;
			for (const bits of lacks) word &= ~bits[i]!;
			out[i]! |= word;
		}
	}
	return out;
}

/** The ids of those reached, in the order of the population. */
export function idsOf({ bits }: Reached, population: Population): string[] {
	return bits ? population.ids.filter((_, i) => bits[i >> 5]! & (1 << (i & 31))) : [];
}

/** How many bits of a word are set. */
function ones(word: number): number {
	let v = word - ((word >>> 1) & 0x55555555);
	v = (v & 0x33333333) + ((v >>> 2) & 0x33333333);
	return Math.imul((v + (v >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** A person of today as a `Who`. */
export const whoOf = (person: Member): Who => ({ kind: 'member', ...person });
