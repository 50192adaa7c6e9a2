// The Ternwell & Oxmere Canal Society: invented people, documents and pages on example domains.
import type { DoorChange } from '#core/access/door';
import type { Drawing, Sheet } from './pdf';
import { Random } from './random';
import { section } from './words';

export const site = { name: 'Ternwell & Oxmere Canal Society', zone: 'Europe/London' };

export const groups = ['Friends', 'Moorers', 'Lock wardens', 'Work parties', 'Trustees'] as const;
export const slugs: Record<(typeof groups)[number], string> = {
	Friends: 'friends',
	Moorers: 'moorers',
	'Lock wardens': 'lock-wardens',
	'Work parties': 'work-parties',
	Trustees: 'trustees'
};

export const staff = [
	{ name: 'Edda Marlowe', email: 'edda.marlowe@example.org', role: 'owner' as const },
	{ name: 'Jonas Pell', email: 'jonas.pell@example.org', role: 'editor' as const }
];

const first = [
	'Ada',
	'Ben',
	'Cem',
	'Dot',
	'Elif',
	'Finn',
	'Greta',
	'Hugo',
	'Ines',
	'Jory',
	'Kit',
	'Lena',
	'Milo',
	'Nora',
	'Otis',
	'Pia',
	'Quin',
	'Rosa',
	'Sol',
	'Tove',
	'Uma',
	'Vik',
	'Wren',
	'Yara'
];
const last = [
	'Ashlock',
	'Birtle',
	'Coppice',
	'Dunmere',
	'Eddow',
	'Fenwater',
	'Gravel',
	'Hatchway',
	'Ironside',
	'Jessop-Lane',
	'Kelp',
	'Lockyer',
	'Mooring',
	'Narrowby',
	'Osier',
	'Paddlow'
];

export interface DemoMember {
	readonly name: string;
	readonly email: string;
	readonly memberships: { group: string; from: string | null; until: string | null }[];
}

/** Day `offset` days from `today` (YYYY-MM-DD). */
export function day(today: string, offset: number): string {
	return new Date(Date.parse(`${today}T00:00Z`) + offset * 86_400_000).toISOString().slice(0, 10);
}

/** Forty-eight members; the first is the one whose sign-in is printed (a lock warden, not a trustee). */
export function members(today: string): DemoMember[] {
	const random = new Random(31);
	const out: DemoMember[] = [
		{
			name: 'Wren Lockyer',
			email: 'wren.lockyer@example.org',
			memberships: [
				{ group: 'lock-wardens', from: day(today, -900), until: null },
				{ group: 'friends', from: null, until: day(today, 180) }
			]
		}
	];
	const used = new Set(['Wren Lockyer']);
	while (out.length < 48) {
		const name = `${random.pick(first)} ${random.pick(last)}`;
		if (used.has(name)) continue;
		used.add(name);
		const email = `${name.toLowerCase().replace(' ', '.')}@example.org`;
		const n = out.length;
		const began = day(today, -random.whole(40, 1200));
		const memberships = [{ group: n % 3 === 0 ? 'moorers' : 'friends', from: began, until: n % 5 === 0 ? day(today, random.whole(10, 300)) : null }];
		if (n % 4 === 1) memberships.push({ group: 'lock-wardens', from: began, until: null });
		if (n % 3 === 1) memberships.push({ group: 'work-parties', from: began, until: null });
		if (n % 8 === 2) memberships.push({ group: 'trustees', from: began, until: null });
		// some lapsed, one that has not begun
		if (n % 11 === 0) memberships.splice(0, 9, { group: 'friends', from: day(today, -700), until: day(today, -random.whole(5, 60)) });
		if (n === 17) memberships.splice(0, 9, { group: 'lock-wardens', from: day(today, 12), until: null });
		out.push({ name, email, memberships });
	}
	return out;
}

export interface DemoDocument {
	readonly fileName: string;
	readonly description: string;
	readonly sheet: Omit<Sheet, 'day'>;
	/** How many days ago it was brought in. */
	readonly age: number;
	readonly door: DoorChange | null;
	/** How often it is read: openings in an ordinary week. */
	readonly weekly: number;
}

function sections(seed: number, parts: readonly (readonly [string, number, Drawing?])[]) {
	const random = new Random(seed);
	return parts.map(([heading, paragraphs, drawing]) => section(heading, paragraphs, random, drawing));
}

const chapters = [
	'Before you set out',
	'The lower pounds',
	'The upper flight',
	'Where to stop',
	'Oxmere aqueduct',
	'The summit',
	'Down to Ternwell',
	'Tables and tides'
];

export const documents: readonly DemoDocument[] = [
	{
		fileName: 'Winter stoppages 2026-27.pdf',
		description: 'Which locks are closed this winter, from when until when, and where to wait.',
		age: 20,
		weekly: 34,
		door: { position: 'open' },
		sheet: {
			title: 'Winter stoppages',
			subtitle: 'Locks closed for work from November to March',
			colour: '#9b3722',
			size: 'A4',
			seed: 1,
			sections: sections(1, [
				['At a glance', 1, 'table'],
				['Where to wait', 3],
				['Who to ask', 2]
			])
		}
	},
	{
		fileName: 'Cruising guide (web).pdf',
		description: 'Thirty-one miles, 22 locks and an aqueduct, from the lower pounds to the summit.',
		age: 41,
		weekly: 26,
		door: { position: 'open' },
		sheet: {
			title: 'Cruising guide',
			subtitle: 'Ternwell to Oxmere and back',
			colour: '#1c6a61',
			size: 'A5',
			seed: 2,
			sections: sections(
				2,
				chapters.map((c, i) => [c, 5, i % 2 ? 'flight' : 'map'] as const)
			)
		}
	},
	{
		fileName: 'Lock_warden_handbook_v3.pdf',
		description: 'Procedures for the 22 locks, with the winter settings and who to call.',
		age: 22,
		weekly: 17,
		door: { position: 'keyed', groups: ['lock-wardens'] },
		sheet: {
			title: 'Lock warden handbook',
			subtitle: 'Procedures for the 22 locks',
			colour: '#1c6a61',
			size: 'A4',
			seed: 3,
			sections: sections(
				3,
				Array.from({ length: 22 }, (_, i) => [`Lock ${i + 1}`, 3, i % 4 === 0 ? 'flight' : undefined] as const)
			)
		}
	},
	{
		fileName: 'Water level bulletin, November.pdf',
		description: 'Levels at the upper gauge and in the reservoir, week by week.',
		age: 9,
		weekly: 12,
		door: { position: 'open' },
		sheet: {
			title: 'Water level bulletin, November',
			subtitle: 'Upper gauge and reservoir',
			colour: '#4b5f73',
			size: 'A4',
			seed: 4,
			sections: sections(4, [
				['Upper gauge', 1, 'levels'],
				['Reservoir', 2, 'levels']
			])
		}
	},
	{
		fileName: 'Towpath map.pdf',
		description: 'One landscape sheet: bridges, water points, stiles and stations.',
		age: 60,
		weekly: 21,
		door: { position: 'open' },
		sheet: {
			title: 'Towpath map',
			subtitle: 'Thirty-one miles on one sheet',
			colour: '#835a10',
			size: 'A3',
			landscape: true,
			seed: 5,
			sections: sections(5, [['The line', 1, 'map']])
		}
	},
	{
		fileName: 'boat-safety-checklist.pdf',
		description: 'Four pages to go through before the season, with room for ticks.',
		age: 75,
		weekly: 18,
		door: { position: 'keyed', allMembers: true },
		sheet: {
			title: 'Boat safety checklist',
			subtitle: 'Before the season, and after the winter',
			colour: '#9b3722',
			size: 'A4',
			seed: 6,
			sections: sections(6, [
				['Gas and fire', 4],
				['Hull and steering', 4, 'table'],
				['People on board', 4]
			])
		}
	},
	{
		fileName: 'Culvert 14 survey.pdf',
		description: 'State of the masonry in June, with a proposal for the winter.',
		age: 48,
		weekly: 3,
		door: { position: 'keyed', groups: ['trustees'], people: ['wren.lockyer@example.org'], until: '2027-03-31', allow: { save: false, print: false } },
		sheet: {
			title: 'Culvert 14 survey',
			subtitle: 'Masonry, sill and apron',
			colour: '#835a10',
			size: 'A3',
			seed: 7,
			sections: sections(7, [
				['The survey', 6, 'culvert'],
				['What was found', 9],
				['What should be done', 6, 'table']
			])
		}
	},
	{
		fileName: 'Volunteer induction.pdf',
		description: 'A first afternoon: water safety, lifting, and who to call.',
		age: 33,
		weekly: 14,
		door: { position: 'keyed', groups: ['friends', 'work-parties'] },
		sheet: {
			title: 'Volunteer induction',
			subtitle: 'Your first afternoon with us',
			colour: '#1c6a61',
			size: 'A4',
			seed: 8,
			sections: sections(8, [
				['Welcome', 3],
				['Water', 5, 'levels'],
				['Lifting and carrying', 5],
				['Tools', 4],
				['Who to call', 2]
			])
		}
	},
	{
		fileName: 'Trustees minutes 2026-10.pdf',
		description: 'Minutes of the October meeting.',
		age: 28,
		weekly: 5,
		door: { position: 'keyed', groups: ['trustees'] },
		sheet: {
			title: 'Trustees’ minutes, October',
			subtitle: 'Held at the toll house',
			colour: '#4b5f73',
			size: 'A4',
			seed: 9,
			sections: sections(9, [
				['Present', 1],
				['Matters arising', 4],
				['Winter works', 4],
				['Money', 3, 'table']
			])
		}
	},
	{
		fileName: 'Heritage trail Oxmere.pdf',
		description: 'Nine stops between the toll house and the aqueduct.',
		age: 55,
		weekly: 11,
		door: { position: 'ajar' },
		sheet: {
			title: 'Heritage trail: Oxmere',
			subtitle: 'Nine stops and a bench',
			colour: '#835a10',
			size: 'A5',
			landscape: true,
			seed: 10,
			sections: sections(10, [
				['From the toll house', 3, 'map'],
				['To the aqueduct', 3]
			])
		}
	},
	{
		fileName: 'Work party calendar.xlsx.pdf',
		description: 'Saturdays from November to March.',
		age: 15,
		weekly: 16,
		door: { position: 'keyed', groups: ['work-parties'] },
		sheet: {
			title: 'Work party calendar',
			subtitle: 'Saturdays, nine to four',
			colour: '#1c6a61',
			size: 'A4',
			seed: 11,
			script: 'this.print();',
			sections: sections(11, [
				['Dates', 1, 'table'],
				['What to bring', 2]
			])
		}
	},
	{
		fileName: 'Памятка гостям.pdf',
		description: 'A leaflet for visiting crews, in Bulgarian.',
		age: 12,
		weekly: 2,
		door: null,
		sheet: {
			title: 'Памятка за гости',
			subtitle: 'For visiting crews',
			colour: '#4b5f73',
			size: 'A4',
			seed: 12,
			language: 'bg',
			cyrillic: 'Добре дошли на канала. Затваряйте всяка врата след себе си и оставяйте водата такава, каквато я намерихте.',
			sections: sections(12, [['At the locks', 2, 'flight']])
		}
	}
];

/** A short way to write article content. */
const text = (value: string) => ({ type: 'text', text: value });
const paragraph = (...content: unknown[]) => ({ type: 'paragraph', content });
const heading = (value: string) => ({ type: 'heading', attrs: { level: 2 }, content: [text(value)] });
const placed = (attrs: Record<string, unknown>) => ({ type: 'placement', attrs });

export interface DemoPage {
	readonly path: string;
	readonly title: string;
	readonly door: DoorChange;
	readonly content: unknown;
}

export const pages: readonly DemoPage[] = [
	{
		path: '/',
		title: 'Thirty-one miles of quiet water',
		door: { position: 'open' },
		content: {
			type: 'doc',
			content: [
				paragraph(placed({ id: 'front-cover-guide', document: 'cruising-guide', form: 'cover', press: 'page', width: 220 })),
				paragraph(
					text(
						'The society looks after the canal between Ternwell and Oxmere: 22 locks, an aqueduct on five arches, and the towpath beside it all. Come by boat, by bicycle or on foot.'
					)
				),
				paragraph(
					text('Before you set out, read the '),
					placed({ id: 'front-link-stoppages', document: 'winter-stoppages', form: 'text', press: 'tab', words: 'winter stoppages' }),
					text(' and look at the levels in the '),
					placed({ id: 'front-link-bulletin', document: 'water-level-bulletin-november', form: 'text', press: 'page', words: 'November bulletin' }),
					text('.')
				),
				heading('Take it with you'),
				paragraph(text('The whole line on one sheet, to print or to keep on the telephone:')),
				paragraph(placed({ id: 'front-button-map', document: 'towpath-map', form: 'button', press: 'save', words: 'Save the towpath map' }))
			]
		}
	},
	{
		path: '/volunteering',
		title: 'Give a day to the canal',
		door: { position: 'open' },
		content: {
			type: 'doc',
			content: [
				paragraph(
					text(
						'Every lock on the upper flight is looked after by somebody who lives within a mile of it. Wardens work in pairs, two mornings a month, and most had never turned a windlass before.'
					)
				),
				paragraph(
					text('Read the '),
					placed({ id: 'vol-link-calendar', document: 'work-party-calendar', form: 'text', press: 'page', words: 'work party calendar' }),
					text(', choose a Saturday, and bring gloves. The '),
					placed({ id: 'vol-link-induction', document: 'volunteer-induction', form: 'text', press: 'tab', words: 'volunteer induction' }),
					text(' takes an afternoon and covers water safety, lifting and who to call.')
				),
				heading('For wardens'),
				paragraph(text('The handbook is kept for lock wardens; sign in to open it.')),
				paragraph(
					placed({ id: 'vol-cover-handbook', document: 'lock-warden-handbook', form: 'cover', press: 'page', words: 'Lock warden handbook', width: 200 })
				)
			]
		}
	},
	{
		path: '/wardens',
		title: 'Wardens’ room',
		door: { position: 'keyed', groups: ['lock-wardens'] },
		content: {
			type: 'doc',
			content: [
				paragraph(text('The rota, the handbook and the winter settings, for the fourteen or so who hold a windlass of the society.')),
				paragraph(placed({ id: 'wardens-cover-handbook', document: 'lock-warden-handbook', form: 'cover', press: 'tab', width: 240 })),
				paragraph(placed({ id: 'wardens-button-handbook', document: 'lock-warden-handbook', form: 'button', press: 'save', words: 'Save the handbook' })),
				heading('Before the season'),
				paragraph(placed({ id: 'wardens-link-safety', document: 'boat-safety-checklist', form: 'text', press: 'here' }))
			]
		}
	}
];

/** Addresses that the titles come to, where a page needs them; the loader checks that they hold. */
export const settledSlugs: Readonly<Record<string, string>> = { 'Памятка за гости': 'visiting-crews' };
