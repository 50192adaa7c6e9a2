// What taking an export in would do to a site: what is new there, what is there already, what gets another address, and what stays out. Reading files
// and writing rows are the server's.
import { freeSlug } from '../documents/address';
import { counted } from '../text/list';
import type { ExportLine } from './portable';

/** What of a site an import meets. */
export interface ThereAlready {
	readonly groups: ReadonlySet<string>;
	/** By mail address. */
	readonly people: ReadonlySet<string>;
	/** The checksum of the edition in force by the slug of its document. */
	readonly documents: ReadonlyMap<string, string>;
	/** Slugs that documents had before. */
	readonly formerSlugs: ReadonlySet<string>;
	readonly pages: ReadonlySet<string>;
	/** Names of the fields that the site gives its documents. */
	readonly fields: ReadonlySet<string>;
}

/** What is to be taken in, without the ledger, whose entries go with their documents. */
export interface Arriving {
	readonly groups: readonly ExportLine<'groups'>[];
	readonly people: readonly ExportLine<'people'>[];
	readonly documents: readonly ExportLine<'documents'>[];
	readonly pages: readonly ExportLine<'pages'>[];
	readonly keys: readonly ExportLine<'keys'>[];
	/** Whether a document that has the same file as one here, whatever its address, is that one: where addresses were made from titles. */
	readonly sameFileIsSame?: boolean;
}

export interface ImportPlan {
	readonly groups: readonly ExportLine<'groups'>[];
	readonly people: readonly ExportLine<'people'>[];
	/** Documents that are new, each with the slug that it gets. */
	readonly documents: readonly { readonly line: ExportLine<'documents'>; readonly slug: string }[];
	readonly pages: readonly ExportLine<'pages'>[];
	readonly keys: readonly ExportLine<'keys'>[];
	/** The slug here of every document of the export, those that are here already among them. */
	readonly slugs: ReadonlyMap<string, string>;
	/** Slugs that pages of the export name and that mean another document here, or none: each with the one that it is here. */
	readonly moved: ReadonlyMap<string, string>;
	/** What whoever takes it in should know, in sentences. */
	readonly notes: readonly string[];
}

/**
 * Groups, people and pages are known by slug, mail address and path, documents by slug and the file in force: what is here already stays as it is.
 * A document whose slug another one has gets the next free one. People of the staff are not taken in: whoever runs the site lets them in.
 */
export function planImport(arriving: Arriving, there: ThereAlready): ImportPlan {
	const notes: string[] = [];
	const groups = arriving.groups.filter(({ slug }) => !there.groups.has(slug));
	const fresh = arriving.people.filter(({ email }) => !there.people.has(email));
	const staff = fresh.filter(({ role }) => role !== 'member');
	if (staff.length)
		notes.push(
			`${counted(staff.length, 'person of the staff stays', 'people of the staff stay')} out: invite them, or make them owners with ianua owner create.`
		);
	const people = fresh.filter(({ role }) => role === 'member');

	const taken = new Set([...there.documents.keys(), ...there.formerSlugs]);
	const slugs = new Map<string, string>();
	const moved = new Map<string, string>();
	const named = (line: ExportLine<'documents'>, slug: string) => {
		slugs.set(line.slug, slug);
		for (const name of [line.slug, ...line.addresses])
			if (name !== slug && (slug !== line.slug || there.documents.has(name) || there.formerSlugs.has(name))) moved.set(name, slug);
	};
	const documents: { line: ExportLine<'documents'>; slug: string }[] = [];
	const byFile = new Map([...there.documents].map(([slug, sha256]) => [sha256, slug]));
	const unknownFields = new Set<string>();
	for (const line of arriving.documents) {
		const sha256 = line.editions.find(({ inForce }) => inForce)?.sha256 ?? '';
		const here = there.documents.get(line.slug) === sha256 ? line.slug : arriving.sameFileIsSame ? byFile.get(sha256) : undefined;
		if (here !== undefined) {
			named(line, here);
			continue;
		}
		const slug = freeSlug(line.slug, taken);
		taken.add(slug);
		named(line, slug);
		documents.push({ line, slug });
		if (slug !== line.slug) notes.push(`“${line.title}” gets the address ${slug}: another document has ${line.slug}.`);
		for (const name of Object.keys(line.fields)) if (!there.fields.has(name)) unknownFields.add(name);
	}
	if (unknownFields.size) notes.push(`Fields that this site does not have stay out: ${[...unknownFields].sort().join(', ')}.`);
	const pages = arriving.pages.filter(({ path }) => !there.pages.has(path));
	const kept = arriving.pages.filter(({ path }) => there.pages.has(path));
	for (const { path, title } of kept.slice(0, 20)) notes.push(`The page “${title}” stays out: a page stands at ${path}.`);
	if (kept.length > 20) notes.push(`So do ${kept.length - 20} more pages.`);
	const newOnes = new Set(documents.map(({ line }) => line.slug));
	return { groups, people, documents, pages, keys: arriving.keys.filter(({ document }) => newOnes.has(document)), slugs, moved, notes };
}
