// Find over everything that has a screen at the desk. Finding in documents alone is documents/find.ts.
import type { Position } from '#core/access/door';
import { listDocuments } from './documents/list';
import { listGroups, listPeople } from './people/directory';
import { listPages } from './placing/views';

/** Something with a screen of its own at the desk. */
export interface Found {
	readonly kind: 'document' | 'page' | 'person' | 'group';
	readonly title: string;
	/** What tells it apart from others of that name. */
	readonly note: string;
	readonly href: string;
	/** How its door stands, where it has one. */
	readonly position?: Position;
}

/** At most so many of each kind. */
const most = 5;

/** Documents by their words, pages by title and address, people by name and mail address, groups by name; nothing for no words. */
export async function desksFound(words: string): Promise<Found[]> {
	if (!words) return [];
	const sought = words.toLowerCase();
	const [documents, pages, people, groups] = await Promise.all([
		listDocuments({ q: words, limit: most }),
		listPages(),
		listPeople({ q: words, limit: most }),
		listGroups()
	]);
	return [
		...documents.items.map((d) => ({
			kind: 'document' as const,
			title: d.title,
			note: d.folder,
			href: `/desk/documents/${d.slug}`,
			position: d.door.position
		})),
		...pages
			.filter((p) => p.title.toLowerCase().includes(sought) || p.path.includes(sought))
			.slice(0, most)
			.map((p) => ({ kind: 'page' as const, title: p.title, note: p.path, href: `/desk/pages/${p.id}`, position: p.door.position })),
		...people.items.map((p) => ({
			kind: 'person' as const,
			title: p.name,
			note: p.email,
			href: p.role === 'member' ? `/desk/people?person=${p.id}` : '/desk/people/staff'
		})),
		...groups
			.filter((g) => g.name.toLowerCase().includes(sought))
			.slice(0, most)
			.map((g) => ({ kind: 'group' as const, title: g.name, note: '', href: `/desk/people?group=${g.slug}` }))
	];
}
