// The society's documents: what stands in them, where they stand in the room, how their doors are set, and what is odd about some.
import type { DoorChange } from '#core/access/door';
import type { Drawing, Sheet } from './pdf';
import { Random } from './random';
import { french, german, section } from './words';

export interface DemoDocument {
	readonly fileName: string;
	readonly description: string;
	readonly folder: string;
	readonly topics: readonly string[];
	readonly sheet: Omit<Sheet, 'day'>;
	/** How a first edition differed, where there was one, and how many days ago that was brought in. */
	readonly before?: { readonly fileName: string; readonly age: number; readonly sheet: Omit<Sheet, 'day'> };
	/** How many days ago it was brought in. */
	readonly age: number;
	readonly door: DoorChange | null;
	/** How often it is read: openings in an ordinary week. */
	readonly weekly: number;
	/** Set aside this many days ago. */
	readonly aside?: number;
}

type Parts = readonly (readonly [heading: string, paragraphs: number, drawing?: Drawing])[];

function sections(seed: number, parts: Parts, sentences?: readonly string[]) {
	const random = new Random(seed);
	return parts.map(([heading, paragraphs, drawing]) => section(heading, paragraphs, random, drawing, sentences));
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

const principal: readonly DemoDocument[] = [
	{
		fileName: 'Winter stoppages 2026-27.pdf',
		description: 'Which locks are closed this winter, from when until when, and where to wait.',
		folder: 'Notices',
		topics: ['navigation', 'winter'],
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
		},
		before: {
			fileName: 'Winter stoppages DRAFT.pdf',
			age: 34,
			sheet: {
				title: 'Winter stoppages',
				subtitle: 'Locks closed for work from December to March, provisional',
				colour: '#9b3722',
				size: 'A4',
				seed: 1,
				sections: sections(1, [
					['At a glance', 1, 'table'],
					['Where to wait', 2]
				])
			}
		}
	},
	{
		fileName: 'Cruising guide (web).pdf',
		description: 'Thirty-one miles, 22 locks and an aqueduct, from the lower pounds to the summit.',
		folder: 'Guides',
		topics: ['boating', 'navigation'],
		age: 186,
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
		folder: 'Wardens',
		topics: ['locks', 'safety'],
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
		folder: 'Notices/Water levels',
		topics: ['water', 'navigation'],
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
		folder: 'Guides',
		topics: ['walking', 'heritage'],
		age: 204,
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
		folder: 'Guides',
		topics: ['boating', 'safety'],
		age: 230,
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
		folder: 'Engineering',
		topics: ['masonry', 'water'],
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
		folder: 'Volunteers',
		topics: ['safety'],
		age: 33,
		weekly: 14,
		door: { position: 'keyed', groups: ['friends', 'work-parties'], announced: true },
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
		folder: 'Minutes',
		topics: ['trustees'],
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
		folder: 'Leaflets',
		topics: ['walking', 'heritage'],
		age: 190,
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
		folder: 'Volunteers',
		topics: ['winter'],
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
		folder: 'Leaflets',
		topics: ['boating'],
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

const [verdigris, brick, brass, slate] = ['#1c6a61', '#9b3722', '#835a10', '#4b5f73'];
const open: DoorChange = { position: 'open' };
const to = (...groups: string[]): DoorChange => ({ position: 'keyed', groups });

/** The smaller papers, a line each. */
function paper(
	fileName: string,
	[title, subtitle]: readonly [string, string],
	[folder, ...topics]: readonly [string, ...string[]],
	[age, weekly]: readonly [number, number],
	door: DoorChange | null,
	{ parts, sentences, ...sheet }: Partial<Omit<Sheet, 'sections' | 'title' | 'subtitle'>> & { parts: Parts; sentences?: readonly string[] },
	rest: Partial<DemoDocument> = {}
): DemoDocument {
	const seed = Array.from(fileName).reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 100_003, 7);
	return {
		fileName,
		description: `${subtitle}.`,
		folder,
		topics,
		age,
		weekly,
		door,
		sheet: { title, subtitle, colour: verdigris, size: 'A4', seed, ...sheet, sections: sections(seed, parts, sentences) },
		...rest
	};
}

const months = [
	['2026-09', 'September', 62],
	['2026-07', 'July', 124],
	['2026-05', 'May', 170]
] as const;

const papers: readonly DemoDocument[] = [
	paper(
		'Engineering archive 1931-1974.pdf',
		['Engineering archive, 1931 to 1974', 'Day books of the works at locks, weirs and bridges'],
		['Engineering', 'masonry', 'heritage'],
		[130, 2],
		to('trustees', 'work-parties'),
		{
			colour: slate,
			parts: Array.from({ length: 44 }, (_, i) => [`Year ${1931 + i}`, 54, i % 3 === 0 ? 'culvert' : i % 3 === 1 ? 'levels' : undefined] as const)
		}
	),
	paper('byelaws-1898-scan.pdf', ['Bye-laws of 1898', 'Scanned from the only copy, pictures without text'], ['Archive', 'heritage'], [140, 1], open, {
		size: 'A5',
		colour: '#3a342a',
		scanned: true,
		parts: [
			['Of boats', 4],
			['Of horses and lines', 5],
			['Of locks and water', 5],
			['Of fines', 4]
		]
	}),
	paper(
		'Hydrology_of_the_Oxmere_feeder.pdf',
		['Hydrology of the Oxmere feeder', 'Flow through four dry summers, with the readings attached'],
		['Engineering', 'water'],
		[88, 3],
		open,
		{
			colour: slate,
			attachments: [
				{ name: 'readings-2022.csv', text: 'week,level_mm,flow_ls\n1,412,38\n2,405,36\n3,398,33\n' },
				{ name: 'readings-2025.csv', text: 'week,level_mm,flow_ls\n1,377,29\n2,371,27\n3,366,26\n' }
			],
			parts: [
				['Abstract', 2],
				['The gauges', 5, 'levels'],
				['Four summers', 9, 'levels'],
				['What follows', 4, 'table']
			]
		}
	),
	paper(
		'insurance certificate (confidential).pdf',
		['Insurance certificate', 'Locked by the insurer with a password'],
		['Trustees', 'trustees'],
		[6, 0],
		null,
		{ colour: slate, password: 'windlass-1898', parts: [['Cover', 3, 'table']] },
		{ description: '' }
	),
	paper(
		'bridge 9 elevation.pdf',
		['Bridge 9, elevation', 'Drawing of the north face; the file was not written cleanly'],
		['Engineering', 'masonry'],
		[11, 0],
		null,
		{
			size: 'A3',
			landscape: true,
			colour: brass,
			tableLost: true,
			parts: [
				['North face', 2, 'culvert'],
				['Arch ring', 3]
			]
		}
	),
	paper('Schleusenordnung.pdf', ['Schleusenordnung für Gäste', 'Wie man unsere Schleusen bedient'], ['Leaflets', 'boating', 'locks'], [52, 4], open, {
		size: 'A5',
		language: 'de',
		sentences: german,
		parts: [
			['Vor der Schleuse', 3, 'flight'],
			['In der Schleuse', 3],
			['Nach der Schleuse', 2]
		]
	}),
	paper("Guide de l'éclusier.pdf", ['Guide de l’éclusier', 'Pour les équipages de passage'], ['Leaflets', 'boating', 'locks'], [51, 3], open, {
		size: 'A5',
		language: 'fr',
		sentences: french,
		parts: [
			['Avant l’écluse', 3, 'flight'],
			['Dans l’écluse', 3]
		]
	}),
	...months.flatMap(([key, month, age]) => [
		paper(
			`Water level bulletin ${key}.pdf`,
			[`Water level bulletin, ${month}`, 'Upper gauge and reservoir'],
			['Notices/Water levels', 'water', 'navigation'],
			[age, 2],
			open,
			{
				colour: slate,
				parts: [
					['Upper gauge', 1, 'levels'],
					['Reservoir', 2, 'levels']
				]
			}
		),
		paper(`Trustees minutes ${key}.pdf`, [`Trustees’ minutes, ${month}`, 'Held at the toll house'], ['Minutes', 'trustees'], [age + 3, 1], to('trustees'), {
			colour: slate,
			parts: [
				['Present', 1],
				['Matters arising', 4],
				['Money', 3, 'table']
			]
		})
	]),
	paper('Heritage trail Ternwell.pdf', ['Heritage trail: Ternwell', 'Seven stops around the basin'], ['Leaflets', 'walking', 'heritage'], [57, 7], open, {
		size: 'A5',
		landscape: true,
		colour: brass,
		parts: [
			['Around the basin', 3, 'map'],
			['Up the flight', 3]
		]
	}),
	paper('Heritage trail Long Pound.pdf', ['Heritage trail: the Long Pound', 'An afternoon on the level'], ['Leaflets', 'walking', 'heritage'], [56, 5], open, {
		size: 'A5',
		landscape: true,
		colour: brass,
		parts: [
			['Along the level', 3, 'map'],
			['The winding hole', 2]
		]
	}),
	paper('Mooring agreement.pdf', ['Mooring agreement', 'What the society and a moorer owe each other'], ['Moorings', 'boating'], [96, 6], to('moorers'), {
		parts: [
			['The mooring', 4],
			['Charges', 3, 'table'],
			['Ending it', 3]
		]
	}),
	paper('Mooring charges 2027.pdf', ['Mooring charges 2027', 'By length and place, from April'], ['Moorings', 'boating'], [18, 9], to('moorers', 'trustees'), {
		colour: brass,
		parts: [['Charges', 2, 'table']]
	}),
	paper(
		'Risk assessment work parties.pdf',
		['Risk assessment for work parties', 'To be read aloud before the first tool is lifted'],
		['Volunteers', 'safety'],
		[44, 8],
		to('work-parties'),
		{
			colour: brick,
			parts: [
				['Water', 4],
				['Tools', 4, 'table'],
				['Weather', 3]
			]
		}
	),
	paper(
		'First aid at the lock side.pdf',
		['First aid at the lock side', 'One page for the box on the wall'],
		['Wardens', 'safety', 'locks'],
		[43, 4],
		{ position: 'keyed', allMembers: true },
		{
			colour: brick,
			parts: [['Before help comes', 3]]
		}
	),
	paper(
		'Winter settings of paddles.pdf',
		['Winter settings of paddles', 'Lock by lock, in force from November'],
		['Wardens', 'locks', 'winter', 'water'],
		[25, 6],
		to('lock-wardens'),
		{
			parts: [
				['Settings', 2, 'table'],
				['When to depart from them', 4]
			]
		}
	),
	paper('Annual report 2025.pdf', ['Annual report 2025', 'What was done, what it cost, and who did it'], ['Reports', 'trustees'], [155, 4], open, {
		parts: [
			['From the chair', 4],
			['The line', 8, 'map'],
			['The money', 5, 'table'],
			['Our thanks', 3]
		]
	}),
	paper(
		'Accounts 2025 signed off.pdf',
		['Accounts 2025', 'As laid before the members in May'],
		['Reports', 'trustees'],
		[150, 2],
		{ position: 'keyed', allMembers: true },
		{
			colour: slate,
			size: 'LETTER',
			parts: [
				['Income', 2, 'table'],
				['Spending', 2, 'table'],
				['Notes', 6]
			]
		}
	),
	paper('Fishing permit rules.pdf', ['Rules for fishing', 'From the towpath side, sunrise to sunset'], ['Leaflets', 'walking', 'water'], [101, 6], open, {
		size: 'A5',
		parts: [
			['Where', 2, 'map'],
			['When', 2]
		]
	}),
	paper(
		'Dog walkers and anglers.pdf',
		['Dogs, anglers and bicycles', 'Sharing one towpath'],
		['Leaflets', 'walking'],
		[99, 5],
		{ position: 'ajar' },
		{ size: 'A5', colour: brass, parts: [['One path', 3]] }
	),
	paper(
		'Weir gate replacement tender.pdf',
		['Weir gates at Ternwell: call for tenders', 'Two oak gates, hung before the spring'],
		['Engineering', 'water', 'masonry'],
		[36, 3],
		{ position: 'ajar', until: '2027-01-31' },
		{
			colour: slate,
			parts: [
				['The works', 6, 'culvert'],
				['Drawings', 3, 'levels'],
				['How to tender', 4, 'table']
			]
		}
	),
	paper(
		'Members handbook 2024.pdf',
		['Members’ handbook 2024', 'Replaced by the cruising guide and the safety checklist'],
		['Guides', 'boating'],
		[168, 1],
		{ position: 'keyed', allMembers: true },
		{
			parts: [
				['Welcome', 4],
				['Boats', 8],
				['Water', 6, 'levels']
			]
		},
		{ aside: 4 }
	),
	paper(
		'Rota spring 2027.pdf',
		['Wardens’ rota, spring', 'Pairs and mornings from March to May'],
		['Wardens', 'locks'],
		[3, 3],
		{ position: 'keyed', groups: ['lock-wardens'], from: '2027-02-01' },
		{
			parts: [
				['Rota', 1, 'table'],
				['Changing places', 2]
			]
		}
	),
	paper(
		'Aqueduct inspection 2026.pdf',
		['Aqueduct inspection 2026', 'Five arches, looked at from a boat and from a rope'],
		['Engineering', 'masonry'],
		[70, 2],
		to('trustees', 'work-parties'),
		{
			size: 'A3',
			colour: brass,
			parts: [
				['The arches', 9, 'culvert'],
				['The trough', 6, 'levels']
			]
		}
	)
];

export const documents: readonly DemoDocument[] = [...principal, ...papers];

/** Titles whose address the pages name, where it does not come from the title. */
export const settledSlugs: Readonly<Record<string, string>> = { 'Памятка за гости': 'visiting-crews' };

/** A notice fetched from another website and watched there; since then it has changed. */
export const watched = {
	path: '/conditions.pdf',
	title: 'River conditions below Oxmere',
	description: 'Issued by the river office on its own website; our copy is watched for changes.',
	folder: 'Notices',
	topics: ['navigation', 'water'],
	age: 5,
	weekly: 6,
	door: open
};

/** Keys handed to somebody outside; their addresses are nobody's in the demo. */
export const keys = [
	{ document: 'aqueduct-inspection-2026', label: 'Surveyor of the insurer', allow: { save: true, print: true }, openings: 5 },
	{ document: 'lock-warden-handbook', label: 'The boatyard at Oxmere', allow: { save: false, print: false } }
];
