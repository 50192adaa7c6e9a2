// Which topic of the handbook is most likely meant on a screen: few words, as every screen of the desk loads them.

/** By how an address begins, the longer ones first. The titles are those of topics.ts; a test holds them together. */
const byPath: readonly (readonly [begins: string, slug: string, title: string])[] = [
	['/desk/people/keys', 'keys', 'Let somebody from outside in'],
	['/desk/people/knocks', 'knocks', 'When somebody asks to be let in'],
	['/desk/people', 'groups', 'Members and groups'],
	['/desk/pages/', 'place', 'Put a document on a page'],
	['/desk/pages', 'publish', 'Publish, at once or at a time'],
	['/desk/readership', 'readers', 'Who opened, read and saved it'],
	['/desk/upkeep', 'upkeep', 'What needs a hand'],
	['/desk/try', 'try', 'See it as somebody else would'],
	['/desk/documents/', 'door', 'Say who may open it'],
	['/desk/documents', 'bring-in', 'Bring documents in']
];

/** The topic for an address of the desk; undefined where there is none in particular. */
export function topicHere(path: string): { readonly slug: string; readonly title: string } | undefined {
	const [, slug, title] = byPath.find(([begins]) => path.startsWith(begins)) ?? [];
	return slug && title ? { slug, title } : undefined;
}
