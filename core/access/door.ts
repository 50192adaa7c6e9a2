// What a door is: position, whom it admits, hours and allowance. Deciding is decide.ts; saying it in words is reach.ts.
import { Type, type Static } from '@sinclair/typebox';
import { targetPattern } from '../text/link';
import type { Span } from './hours';

export const positions = ['shut', 'keyed', 'ajar', 'open'] as const;
/** Each position admits all that the one before it admits. */
export type Position = (typeof positions)[number];

/** What someone let in may do beyond reading. */
export interface Allowance {
	readonly save: boolean;
	readonly print: boolean;
}

/** A door as the decision needs it: ids, not names. */
export interface Door {
	readonly position: Position;
	readonly allMembers: boolean;
	readonly groups: readonly string[];
	readonly people: readonly string[];
	readonly hours: Span;
	readonly allow: Allowance;
	readonly listed: boolean;
}

/** A document or page. A document that *follows* a page stands under the page's door; its own allowance stays. */
export interface Thing {
	readonly setAside: boolean;
	readonly door: Door;
	readonly follows: { readonly setAside: boolean; readonly unpublished?: boolean; readonly door: Door } | null;
}

/** What those turned away are told in place of the general words. The button leads to a path of the site or a web address. */
export interface TurnedAwayWords {
	readonly heading?: string;
	readonly words?: string;
	readonly button?: { readonly label: string; readonly target: string } | null;
	/** Whether they may knock; null as the site says. */
	readonly knock?: boolean | null;
}

/** A new document's door: shut, read, save and print allowed once somebody is let in, listed once open. */
export const newDoor: Door = {
	position: 'shut',
	allMembers: false,
	groups: [],
	people: [],
	hours: { from: null, until: null },
	allow: { save: true, print: true },
	listed: true
};

/** A day (YYYY-MM-DD, in the site's zone) or an instant (RFC 3339); null clears it. */
const Bound = Type.Union([Type.String({ format: 'date' }), Type.String({ format: 'date-time' }), Type.Null()]);

export const TurnedAwayGiven = Type.Object(
	{
		heading: Type.Optional(Type.String({ maxLength: 200 })),
		words: Type.Optional(Type.String({ maxLength: 2000 })),
		button: Type.Optional(
			Type.Union([
				Type.Null(),
				Type.Object(
					{ label: Type.String({ minLength: 1, maxLength: 80 }), target: Type.String({ maxLength: 1000, pattern: targetPattern }) },
					{ additionalProperties: false }
				)
			])
		),
		knock: Type.Optional(Type.Union([Type.Boolean(), Type.Null()]))
	},
	{ additionalProperties: false }
);

/** A change to a door as the API and the desk send it: only what is named changes. */
export const DoorChange = Type.Object(
	{
		position: Type.Optional(Type.Union(positions.map((p) => Type.Literal(p)))),
		allMembers: Type.Optional(Type.Boolean()),
		groups: Type.Optional(Type.Array(Type.String({ maxLength: 120 }), { maxItems: 500 })),
		people: Type.Optional(Type.Array(Type.String({ maxLength: 320 }), { maxItems: 5000 })),
		follows: Type.Optional(Type.Union([Type.String({ maxLength: 400 }), Type.Null()])),
		from: Type.Optional(Bound),
		until: Type.Optional(Bound),
		allow: Type.Optional(Type.Object({ save: Type.Optional(Type.Boolean()), print: Type.Optional(Type.Boolean()) }, { additionalProperties: false })),
		listed: Type.Optional(Type.Boolean()),
		/** Saved copies carry the reader's name and the date on each page. */
		stamped: Type.Optional(Type.Boolean()),
		turnedAway: Type.Optional(Type.Union([Type.Null(), TurnedAwayGiven]))
	},
	{ additionalProperties: false }
);
export type DoorChange = Static<typeof DoorChange>;
