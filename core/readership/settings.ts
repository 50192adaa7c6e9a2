// What a site keeps of its readers, and what it counts as read through.
import { Type, type Static } from '@sinclair/typebox';
import { throughShare } from './counting';
import { oneOf } from '../schema';

/**
 * What is kept of somebody without a name: `cookie`, a cookie for 30 days, once they have agreed (until then as `day`); `day`, a mark made of
 * a part of their address, their browser and a key that is thrown away, so that it tells them apart for one day; `nothing` but counts.
 */
export const namelessKinds = ['cookie', 'day', 'nothing'] as const;
export type Nameless = (typeof namelessKinds)[number];

export const ReadershipSettings = Type.Object(
	{
		nameless: Type.Optional(oneOf(namelessKinds)),
		/** Months for which entries are kept; null for ever. Sums stay. */
		months: Type.Optional(Type.Union([Type.Null(), Type.Integer({ minimum: 1, maximum: 240 })])),
		/** Share of the pages that have to be read for an edition to count as read through. */
		through: Type.Optional(Type.Number({ minimum: 0.1, maximum: 1 }))
	},
	{ additionalProperties: false }
);
export type ReadershipSettings = Static<typeof ReadershipSettings>;

/** All settings, with those that a site does not make as they usually are. */
export const readershipOf = (own: ReadershipSettings | null | undefined) => ({
	nameless: own?.nameless ?? 'day',
	months: own?.months ?? null,
	through: own?.through ?? throughShare
});

/** What a browser says of being followed: the headers `Sec-GPC` (Global Privacy Control) and `DNT` (Tracking Preference Expression). */
export interface Wish {
	readonly gpc: string | null;
	readonly dnt: string | null;
}

/** Whether somebody does not want to be followed. */
export const asksForLittle = ({ gpc, dnt }: Wish): boolean => gpc === '1' || dnt === '1';

/** What is kept of one reader: of whoever does not want to be followed nothing but counts. Nor is it told which pages they looked at. */
export const keptOf = (nameless: Nameless, wish: Wish): Nameless => (asksForLittle(wish) ? 'nothing' : nameless);

/**
 * The part of an address that goes into the mark of a day: of IPv4 the first 24 bits, of IPv6 the first 48.
 * `cutAddress('203.0.113.77')` is '203.0.113.0', `cutAddress('2001:db8:12:34::1')` '2001:db8:12::'.
 */
export function cutAddress(address: string): string {
	const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1] ?? address;
	const four = /^(\d+\.\d+\.\d+)\.\d+$/.exec(mapped);
	if (four) return `${four[1]}.0`;
	// what :: stands for is put in before cutting
	const [head = '', tail] = mapped.toLowerCase().split('%')[0]!.split('::');
	const groups = head ? head.split(':') : [];
	const after = tail ? tail.split(':') : [];
	const all = tail === undefined ? groups : [...groups, ...new Array<string>(Math.max(0, 8 - groups.length - after.length)).fill('0'), ...after];
	if (all.length !== 8 || all.some((g) => !/^[0-9a-f]{1,4}$/.test(g))) return 'unknown';
	return `${all
		.slice(0, 3)
		.map((g) => g.replace(/^0+(?=.)/, ''))
		.join(':')}::`;
}
