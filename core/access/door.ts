// What a door is: position, whom it admits, hours and allowance. Deciding is decide.ts; saying it in words is reach.ts.
import { Type, type Static } from '@sinclair/typebox';
import { nullable, oneOf, type Unchanging } from '../schema';
import { targetPattern } from '../text/link';
import type { Span } from './hours';

export const positions = ['shut', 'keyed', 'ajar', 'open'] as const;
/** Each position admits all that the one before it admits. */
export type Position = (typeof positions)[number];

const closed = { additionalProperties: false } as const;

const AllowanceShape = Type.Object({ save: Type.Boolean(), print: Type.Boolean() }, closed);

/** What those turned away are told in place of the general words. */
export const TurnedAwayGiven = Type.Object(
	{
		heading: Type.Optional(Type.String({ maxLength: 200 })),
		words: Type.Optional(Type.String({ maxLength: 2000 })),
		button: Type.Optional(
			nullable(
				Type.Object(
					{
						label: Type.String({ minLength: 1, maxLength: 80 }),
						target: Type.String({ maxLength: 1000, pattern: targetPattern, description: 'a path of the site or a web address' })
					},
					closed
				)
			)
		),
		knock: Type.Optional(nullable(Type.Boolean({ description: 'whether they may knock; null as the site says' })))
	},
	closed
);

/** A day (in the site's zone) or an instant. */
const Bound = nullable(
	Type.Union([Type.String({ format: 'date' }), Type.String({ format: 'date-time' })], { description: 'a day in the site’s zone, or an instant (RFC 3339)' })
);

/**
 * Every field of a door, once. All other shapes come from this one: a change has some of the fields, a door as it is decided on has its hours
 * as instants, a door as it is shown has names beside ids.
 */
export const DoorShape = Type.Object(
	{
		position: oneOf(positions),
		allMembers: Type.Boolean(),
		groups: Type.Array(Type.String({ maxLength: 120 }), { maxItems: 500, description: 'slugs' }),
		people: Type.Array(Type.String({ maxLength: 320 }), { maxItems: 5000, description: 'mail addresses' }),
		follows: nullable(Type.String({ maxLength: 400, description: 'path of the page whose door holds' })),
		from: Bound,
		until: Bound,
		allow: AllowanceShape,
		listed: Type.Boolean(),
		announced: Type.Boolean({ description: 'while it is keyed, everyone sees its title, description and for whom it is kept' }),
		stamped: Type.Boolean({ description: 'saved copies carry the reader’s name and the date on each page' }),
		turnedAway: nullable(TurnedAwayGiven)
	},
	closed
);

type EveryField = Unchanging<Static<typeof DoorShape>>;

/** What someone let in may do beyond reading. */
export type Allowance = EveryField['allow'];
/** What those turned away are told in place of the general words. */
export type TurnedAwayWords = NonNullable<EveryField['turnedAway']>;

/** A door by itself, ids for groups and people: the page it may follow is another door. */
export type DoorFields = Omit<EveryField, 'follows'>;

/** A door as the decision needs it: ids, not names, and hours as instants. */
export interface Door extends Pick<DoorFields, 'position' | 'allMembers' | 'groups' | 'people' | 'allow' | 'listed' | 'announced'> {
	readonly hours: Span;
}

/** A door as screens show it: names beside what tells groups, people and pages apart. */
export interface DoorView extends Omit<DoorFields, 'groups' | 'people'> {
	readonly groups: readonly { readonly slug: string; readonly name: string }[];
	readonly people: readonly { readonly email: string; readonly name: string }[];
	readonly follows: { readonly path: string; readonly title: string } | null;
	/** People of today whom the door in force admits by groups and names. */
	readonly count: number;
	readonly changedAt: string;
	readonly changedBy: string | null;
}

/** A change to a door as the API and the desk send it: only what is named changes. */
export const DoorChange = Type.Partial(Type.Composite([Type.Omit(DoorShape, ['allow']), Type.Object({ allow: Type.Partial(AllowanceShape, closed) })]), closed);
export type DoorChange = Static<typeof DoorChange>;

/** A door that is shown, in the words of the API: slugs, mail addresses and paths. Sent back as a change, it makes a door alike. */
export const fieldsShown = ({
	position,
	allMembers,
	groups,
	people,
	follows,
	from,
	until,
	allow,
	listed,
	announced,
	stamped,
	turnedAway
}: DoorView): EveryField => ({
	position,
	allMembers,
	groups: groups.map(({ slug }) => slug),
	people: people.map(({ email }) => email),
	follows: follows?.path ?? null,
	from,
	until,
	allow,
	listed,
	announced,
	stamped,
	turnedAway
});

/** A document or page. A document that *follows* a page stands under the page's door; its own allowance stays. */
export interface Guarded {
	readonly setAside: boolean;
	readonly door: Door;
	readonly follows: { readonly setAside: boolean; readonly unpublished?: boolean; readonly door: Door } | null;
}

/** A new document's door: shut, read, save and print allowed once somebody is let in, listed once open, not announced. */
export const newDoor: Door = {
	position: 'shut',
	allMembers: false,
	groups: [],
	people: [],
	hours: { from: null, until: null },
	allow: { save: true, print: true },
	listed: true,
	announced: false
};
