// The screens of the desk beside its rooms, by name: what find leads to when one looks for a place and not for a thing.

/** The parts of the settings, in their order: the id under which each stands, and its name. */
export const settingsParts = [
	['site', 'The site'],
	['around', 'Around every page'],
	['navigation', 'Front page and navigation'],
	['language', 'Language'],
	['reading', 'Reading rooms'],
	['placements', 'Placements'],
	['framers', 'Other websites'],
	['websites', 'Passes of other websites'],
	['fields', 'Fields of documents'],
	['turned-away', 'Turned away'],
	['readers', 'What is kept of readers'],
	['llms', 'Language models'],
	['weaknesses', 'Reports of weaknesses'],
	['told', 'Programs told'],
	['tokens', 'Tokens'],
	['origins', 'Programs in browsers'],
	['everything', 'Everything, to take away']
] as const;

interface Screen {
	readonly title: string;
	/** Where it belongs. */
	readonly note: string;
	readonly href: string;
	/** Other words that somebody may look for it by. */
	readonly words?: string;
	readonly ownersOnly?: boolean;
}

const settingsWords: Partial<Record<(typeof settingsParts)[number][0], string>> = {
	site: 'name colour logo look zone time',
	around: 'foot footer address notice banner contact',
	navigation: 'menu home start',
	language: 'translation',
	reading: 'tools',
	placements: 'frame cover button link size',
	framers: 'embed frame code',
	websites: 'jwt single sign-on members intranet embed',
	fields: 'particulars department metadata properties page',
	'turned-away': 'refused knock words',
	readers: 'privacy days names retention',
	weaknesses: 'security contact',
	llms: 'robots ai crawlers text',
	told: 'webhooks',
	tokens: 'api programs',
	origins: 'cors javascript api',
	everything: 'export download zip backup json csv'
};

export const screens: readonly Screen[] = [
	{ title: 'Where placed', note: 'Readership', href: '/desk/readership/by/place' },
	{ title: 'Turned away', note: 'Readership', href: '/desk/readership/by/refusal', words: 'refused' },
	{ title: 'Just now', note: 'Readership', href: '/desk/readership/by/minute', words: 'live' },
	{ title: 'Keys of all documents', note: 'People', href: '/desk/people/keys', words: 'withdraw links outside' },
	{ title: 'Knocks', note: 'People', href: '/desk/people/knocks', words: 'requests' },
	{ title: 'Staff', note: 'People', href: '/desk/people/staff', words: 'editors owners invite' },
	{ title: 'Members from a table', note: 'People', href: '/desk/people/import', words: 'import csv' },
	{ title: 'Who changed what', note: 'Upkeep', href: '/desk/upkeep/trail', words: 'audit history log' },
	{ title: 'Former addresses', note: 'Upkeep', href: '/desk/upkeep/former', words: 'redirects 301 old links website moved broken' },
	{ title: 'Handbook', note: 'How things are done', href: '/desk/help', words: 'help manual guide words' },
	{ title: 'Try the door', note: 'What somebody would see', href: '/desk/try', words: 'preview as' },
	...settingsParts.map(([id, title]) => ({
		title,
		note: 'Settings',
		href: `/desk/settings#${id}`,
		words: settingsWords[id],
		ownersOnly: id !== 'tokens'
	}))
];

/** The screens whose name, or another word for them, begins with what is sought. */
export function screensFor(sought: string, isOwner: boolean): readonly Screen[] {
	const begins = sought.trim().toLowerCase();
	if (begins.length < 2) return [];
	return screens.filter(
		({ title, words = '', ownersOnly }) =>
			(isOwner || !ownersOnly) && (title.toLowerCase().includes(begins) || words.split(' ').some((word) => word.startsWith(begins)))
	);
}
