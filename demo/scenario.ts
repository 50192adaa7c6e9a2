// The Ternwell & Oxmere Canal Society: invented people, documents and pages on example domains.
import type { PageGiven } from '#server/placing/contract';
import type { Sheet } from './pdf';
import { Random } from './random';

/** Who looks after a document, by the folder it stands in. */
export const keptBy: Readonly<Record<string, string>> = {
	Engineering: 'Works',
	Wardens: 'Works',
	'Notices/Water levels': 'Works',
	Notices: 'Office',
	Minutes: 'Office',
	Leaflets: 'Visitor boats',
	Guides: 'Visitor boats',
	Moorings: 'Visitor boats'
};

export const site = {
	name: 'Ternwell & Oxmere Canal Society',
	zone: 'Europe/London',
	contact: 'office@canal.example.org',
	foot: {
		address: 'The Toll House, Wharf Lane\nTernwell',
		words: 'Emergencies on the water: ask for the duty warden, day and night. A society invented for this demonstration.'
	},
	fields: [{ name: 'kept-by', words: 'Kept by', kind: 'choice' as const, choices: ['Office', 'Works', 'Visitor boats'], listed: false, filtered: true }]
};

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

/** Eighty members; the first is the one whose sign-in is printed (a lock warden, not a trustee). */
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
	while (out.length < 80) {
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

/** A short way to write article content. */
const text = (value: string) => ({ type: 'text', text: value });
const paragraph = (...content: unknown[]) => ({ type: 'paragraph', content });
const heading = (value: string) => ({ type: 'heading', attrs: { level: 2 }, content: [text(value)] });
const placed = (attrs: Record<string, unknown>) => ({ type: 'placement', attrs });

export interface DemoPage extends PageGiven {
	/** A draft where false. */
	readonly published?: boolean;
}

const article = (...content: unknown[]) => ({ type: 'doc', content });
const cell = (type: 'tableHeader' | 'tableCell', value: string) => ({ type, content: [paragraph(text(value))] });
const table = (head: readonly string[], ...rows: readonly (readonly string[])[]) => ({
	type: 'table',
	content: [
		{ type: 'tableRow', content: head.map((v) => cell('tableHeader', v)) },
		...rows.map((row) => ({ type: 'tableRow', content: row.map((v) => cell('tableCell', v)) }))
	]
});

/** The site's pages in all layouts. The work party calendar on /volunteering is a dead end, the checklist on /wardens a side door. */
export const pages = (today: string): readonly DemoPage[] => [
	{
		path: '/',
		title: 'Thirty-one miles of quiet water',
		content: article(
			paragraph(
				text(
					'The society looks after the canal between Ternwell and Oxmere: 22 locks, an aqueduct on five arches, and the towpath beside it all. Come by boat, by bicycle or on foot.'
				)
			),
			paragraph(placed({ id: 'front-cover-guide', document: 'cruising-guide', form: 'cover', press: 'page', width: 220 })),
			paragraph(
				text('Before you set out, read the '),
				placed({ id: 'front-link-stoppages', document: 'winter-stoppages', form: 'text', press: 'over', words: 'winter stoppages' }),
				text(' and look at the levels in the '),
				placed({ id: 'front-link-bulletin', document: 'water-level-bulletin-november', form: 'text', press: 'page', words: 'November bulletin' }),
				text('.')
			),
			heading('Take it with you'),
			paragraph(text('The whole line on one sheet, to print or to keep on the telephone:')),
			paragraph(placed({ id: 'front-button-map', document: 'towpath-map', form: 'button', press: 'save', words: 'Save the towpath map' })),
			heading('Latest from the library'),
			{ type: 'documentList', attrs: { id: 'front-latest-five', show: 'covers', order: '-changed', beside: false, filters: false, most: 5 } }
		)
	},
	{
		path: '/volunteering',
		label: 'Take part',
		title: 'Give a day to the canal',
		content: article(
			paragraph(
				text(
					'Every lock on the upper flight is looked after by somebody who lives within a mile of it. Wardens work in pairs, two mornings a month, and most had never turned a windlass before.'
				)
			),
			paragraph(
				text('Read the '),
				placed({ id: 'vol-link-calendar', document: 'work-party-calendar', form: 'text', press: 'page', words: 'work party calendar' }),
				text(', choose a Saturday, and bring gloves. The induction takes an afternoon and covers water safety, lifting and who to call.')
			),
			paragraph(placed({ id: 'vol-card-induction', document: 'volunteer-induction', form: 'card', press: 'tab', words: 'Volunteer induction', locked: true })),
			heading('For wardens'),
			paragraph(text('The handbook is kept for lock wardens; sign in to open it.')),
			paragraph(
				placed({
					id: 'vol-cover-handbook',
					document: 'lock-warden-handbook',
					form: 'cover',
					press: 'page',
					words: 'Lock warden handbook',
					width: 200,
					locked: true
				})
			)
		)
	},
	{
		path: '/wardens',
		label: 'Wardens',
		title: 'Wardens’ room',
		door: { position: 'keyed', groups: ['lock-wardens'] },
		content: article(
			paragraph(text('The rota, the handbook and the winter settings, for the fourteen or so who hold a windlass of the society.')),
			paragraph(placed({ id: 'wardens-cover-handbook', document: 'lock-warden-handbook', form: 'cover', press: 'tab', width: 240 })),
			paragraph(placed({ id: 'wardens-button-handbook', document: 'lock-warden-handbook', form: 'button', press: 'save', words: 'Save the handbook' })),
			heading('Before the season'),
			paragraph(placed({ id: 'wardens-link-safety', document: 'boat-safety-checklist', form: 'text', press: 'here' }))
		)
	},
	{
		path: '/water-levels',
		title: 'Water levels',
		content: article(
			paragraph(text('The bulletin comes out on the first Monday of the month. Levels are in millimetres above the sill of the feeder at Oxmere.')),
			paragraph(placed({ id: 'levels-frame-bulletin', document: 'water-level-bulletin-november', form: 'frame', press: 'over' })),
			heading('What the boards say'),
			table(
				['Board', 'Means'],
				['Green', 'The river is fit for all boats'],
				['Yellow', 'Go if you know the river; locks with two on board'],
				['Red', 'Stay where you are']
			),
			heading('The year’s bulletins'),
			{
				type: 'documentList',
				attrs: { id: 'levels-bulletins', folders: ['Notices/Water levels'], show: 'list', order: '-changed', beside: true, filters: false }
			}
		)
	},
	{
		path: '/heritage',
		label: 'Heritage',
		title: 'Two hundred years in an afternoon',
		content: article(
			paragraph(text('The trail at Oxmere has nine stops and a bench. It begins at the toll house and ends where the tea is.')),
			{
				type: 'columns',
				content: [
					{
						type: 'column',
						content: [
							paragraph(text('The bye-laws of 1898 tell what was forbidden, and so what was done.')),
							paragraph(placed({ id: 'heritage-card-byelaws', document: 'bye-laws-of-1898', form: 'card', press: 'over', description: false }))
						]
					},
					{
						type: 'column',
						content: [
							paragraph(text('What the summers were like is in the readings of the feeder.')),
							paragraph(placed({ id: 'heritage-card-hydrology', document: 'hydrology-of-the-oxmere-feeder', form: 'card', press: 'page', description: false }))
						]
					}
				]
			},
			{ type: 'blockquote', content: [paragraph(text('No horse shall be left upon the line without a person of discretion at its head.'))] }
		)
	},
	{
		path: '/moorings',
		title: 'For moorers',
		door: { position: 'keyed', groups: ['moorers'] },
		content: article(
			paragraph(text('What a mooring costs, and what goes with it. The guide stands here too, though it is for everyone.')),
			paragraph(placed({ id: 'moorings-card-guide', document: 'cruising-guide', form: 'card', press: 'over' }))
		)
	},
	{
		path: '/library',
		title: 'Library',
		layout: 'catalogue',
		content: {
			lead: 'Everything the society has put out, as far as you may read it. Members who sign in see more.',
			show: 'list',
			order: '-changed',
			beside: false
		}
	},
	{
		path: '/leaflets',
		title: 'Leaflets',
		layout: 'catalogue',
		content: { lead: 'For the pocket and for guests.', folders: ['Leaflets'], show: 'covers', order: 'title', beside: true, filters: false }
	},
	{
		path: '/engineering',
		title: 'Engineering papers',
		layout: 'catalogue',
		inNavigation: false,
		content: { folders: ['Engineering'], show: 'table', order: '-pages', beside: false }
	},
	{
		path: '/boat',
		title: 'On the boat',
		layout: 'pocket',
		content: {
			lead: 'Ternwell to Oxmere, in the pocket.',
			entries: [
				{ id: 'boat-entry-map', document: 'towpath-map', words: 'The line on one sheet' },
				{ id: 'boat-entry-levels', document: 'water-level-bulletin-november', words: 'Levels this month', icon: 'gauge' },
				{ id: 'boat-entry-stoppages', document: 'winter-stoppages', words: 'Locks closed this winter', until: day(today, 110) },
				{ id: 'boat-entry-guide', document: 'cruising-guide' },
				{ id: 'boat-entry-tides', url: 'https://tides.example/ternwell', words: 'Tides at Ternwell', icon: 'anchor' },
				{ id: 'boat-entry-trail', document: 'heritage-trail-oxmere', words: 'Heritage trail', from: day(today, 21), until: day(today, 52) },
				{ id: 'boat-entry-checklist', document: 'boat-safety-checklist', words: 'Before you cast off', resting: true }
			]
		}
	},
	{
		path: '/open-day',
		title: 'Open day',
		layout: 'pocket',
		published: false,
		content: { entries: [{ id: 'open-day-entry-map', document: 'towpath-map', words: 'How to get here' }] }
	},
	{
		path: '/spring',
		title: 'When the locks open again',
		published: false,
		inNavigation: false,
		content: article(paragraph(text('To be written when the dates are known.')))
	}
];

export const navigation = ['/volunteering', '/library', '/leaflets', '/water-levels', '/heritage', '/wardens', '/moorings'];

/** What stands above every page for a time. */
export const lineAbove = (today: string) => ({
	words: 'Locks 6 to 9 are closed. No passage above Cutler’s Lock; the towpath stays open.',
	path: '/d/winter-stoppages',
	until: day(today, 19)
});

/** A side door that is meant to be, and why. */
export const meantSideDoor = { page: '/moorings', document: 'cruising-guide', why: 'The guide is for everyone; moorers find it here as well.' };

/** Knocks: who asks to be let in where, how many days ago; `answer` is how it was answered. */
export const knocks = [
	{
		document: 'lock-warden-handbook',
		email: 'nell.quay@example.org',
		words: 'I have taken on the bottom lock from my aunt and would like to read up before the season.',
		reason: 'sign-in',
		age: 2
	},
	{
		document: 'mooring-charges-2027',
		email: 'ben.lockyer@example.org',
		words: 'My membership ran out in October while I was abroad. The cheque is in the post.',
		reason: 'membership-lapsed',
		age: 1
	},
	{ document: 'lock-warden-handbook', email: 'press@gazette.example', words: 'For an article about the weir.', reason: 'sign-in', age: 9, answer: 'declined' }
] as const;

/** Filters that the owner keeps under a name. */
export const savedFilters = [
	{ name: 'Worth a look, not shut', query: 'condition=look&door=keyed&door=ajar&door=open' },
	{ name: 'Not placed yet', query: 'placed=no&door=open' }
];

/** What the river office's own website offers; `changed` is its next issue. */
export const notice = (day: string, changed: boolean): Sheet => ({
	title: 'Conditions on the river below Oxmere',
	subtitle: 'Issued by the river office on its own website',
	colour: '#2d5f8b',
	size: 'A4',
	day,
	seed: 77,
	sections: [
		{
			heading: 'Flow',
			paragraphs: [
				changed
					? 'The river has fallen since last week. Boats bound for the lower river may leave Oxmere basin while the boards are yellow.'
					: 'The river runs high after the rain of last week. Boats bound for the lower river should wait at Oxmere basin until the boards are yellow.'
			]
		},
		{ heading: 'Locks', paragraphs: ['The tidal lock works two hours either side of high water. Call the keeper the evening before.'] }
	]
});
