// What an export of a site has: a line of JSON for each thing, by the names that people use (slugs, paths, mail addresses), so that another site
// can take it in and any program can read it.
import { Type, type Static, type TSchema } from '@sinclair/typebox';
import { DoorShape } from '../access/door';
import { editionOrigins } from '../documents/edition';
import { slugPattern } from '../documents/address';
import { layouts } from '../placing/content';
import { leftOutRules } from '../readership/counting';
import { receiptAsks } from '../readership/receipt';
import { pagePathPattern } from '../placing/path';
import { ReadingSettings } from '../reading/settings';
import { nullable, oneOf } from '../schema';
import { languages } from '../words/words';

/** 1 today; a later version may write another. */
export const exportFormat = 1;

const Instant = Type.String({ format: 'date-time' });
const Day = Type.String({ format: 'date' });
const Sha256 = Type.String({ pattern: '^[0-9a-f]{64}$' });
const Id = Type.String({ format: 'uuid' });
const Slug = Type.String({ pattern: slugPattern, maxLength: 80, description: 'the last part of a document’s address' });
const Path = Type.String({ pattern: pagePathPattern, maxLength: 200, description: 'the path of a page' });
const Email = Type.String({ maxLength: 320, description: 'the mail address of a person' });
/** A file of the export, from its top: nothing leads out of it. */
const FileName = Type.String({ pattern: '^[a-z]+/[A-Za-z0-9_-][A-Za-z0-9._-]*$', maxLength: 200 });
const closed = { additionalProperties: false } as const;

/** `export.json`: what it is, of which site and when. */
const FormerLine = Type.Object(
	{ path: Type.String(), asked: Type.Integer({ minimum: 0 }), lastAt: nullable(Instant), lastFrom: nullable(Type.String()) },
	closed
);

export const ExportHead = Type.Object({
	format: Type.Integer(),
	version: Type.String({ description: 'of the program that wrote it' }),
	at: Instant,
	origin: Type.String({ description: 'the address of the site' }),
	counts: Type.Record(Type.String(), Type.Integer()),
	formerPatterns: Type.Optional(Type.Array(FormerLine, { description: 'patterns of former addresses that lead to the document of the name' }))
});

export const ExportedGroup = Type.Object(
	{ slug: Type.String({ maxLength: 120 }), name: Type.String(), description: Type.String(), createdAt: Instant },
	closed
);

export const ExportedPerson = Type.Object(
	{
		email: Email,
		name: Type.String(),
		role: oneOf(['owner', 'editor', 'member']),
		suspended: Type.Boolean(),
		createdAt: Instant,
		memberships: Type.Array(Type.Object({ group: Type.String({ maxLength: 120 }), from: nullable(Day), until: nullable(Day) }, closed))
	},
	closed
);

export const ExportedPicture = Type.Object({ sha256: Sha256, file: FileName, width: Type.Integer(), height: Type.Integer() }, closed);

export const ExportedEdition = Type.Object(
	{
		number: Type.Integer({ minimum: 1 }),
		file: FileName,
		fileName: Type.String({ description: 'as it was brought in' }),
		sha256: Sha256,
		bytes: Type.Integer(),
		origin: oneOf(editionOrigins),
		createdAt: Instant,
		inForce: Type.Boolean()
	},
	closed
);

export const ExportedDocument = Type.Object(
	{
		slug: Slug,
		title: Type.String(),
		description: Type.String(),
		folder: Type.String(),
		topics: Type.Array(Type.String()),
		fields: Type.Record(Type.String(), Type.Union([Type.String(), Type.Number()])),
		review: nullable(Type.Object({ on: Day, by: nullable(Email) }, closed)),
		language: nullable(Type.String({ description: 'as staff set it (BCP 47)' })),
		cover: nullable(
			Type.Union([
				Type.Object({ kind: Type.Literal('page'), page: Type.Integer({ minimum: 1 }) }, closed),
				Type.Object({ kind: Type.Literal('picture'), sha256: Sha256 }, closed),
				Type.Object({ kind: Type.Literal('icon'), name: Type.String(), sha256: Sha256 }, closed)
			])
		),
		coverFile: nullable(FileName),
		coverAlt: Type.String(),
		reading: nullable(ReadingSettings),
		// an export of before has neither
		receipt: Type.Optional(nullable(oneOf(receiptAsks))),
		receipts: Type.Optional(Type.Array(Type.Object({ person: Email, edition: Type.Integer({ minimum: 1 }), at: Instant }, closed))),
		createdAt: Instant,
		setAsideAt: nullable(Instant),
		addresses: Type.Array(Slug, { description: 'slugs that it had before' }),
		formerAddresses: Type.Array(FormerLine),
		source: nullable(Type.Object({ url: Type.String(), watch: Type.Boolean() }, closed)),
		door: DoorShape,
		editions: Type.Array(ExportedEdition, { minItems: 1 })
	},
	closed
);

const Content = Type.Unknown({ description: 'as the layout has it: see the API’s description of pages' });

export const ExportedPage = Type.Object(
	{
		path: Path,
		title: Type.String(),
		layout: oneOf(layouts),
		language: nullable(oneOf(languages)),
		navigation: nullable(Type.Integer({ description: 'its place in the navigation' })),
		label: nullable(Type.String()),
		createdAt: Instant,
		setAsideAt: nullable(Instant),
		door: DoorShape,
		draft: Type.Object({ title: Type.String(), content: Content }, closed),
		revisions: Type.Array(Type.Object({ number: Type.Integer({ minimum: 1 }), title: Type.String(), content: Content, publishedAt: Instant }, closed)),
		published: nullable(Type.Integer({ description: 'the number of the revision that is out' })),
		sideDoors: Type.Array(Type.Object({ document: Slug, why: Type.String() }, closed), { description: 'side doors that are meant to be' })
	},
	closed
);

export const ExportedKey = Type.Object(
	{
		id: Id,
		document: Slug,
		label: Type.String(),
		hash: Type.String({ description: 'of the token in its address: the address itself is known to whom it was handed' }),
		passwordHash: nullable(Type.String()),
		allow: Type.Object({ save: Type.Boolean(), print: Type.Boolean() }, closed),
		until: nullable(Type.String()),
		openings: nullable(Type.Integer()),
		used: Type.Integer(),
		mailedTo: nullable(Type.String()),
		createdAt: Instant,
		withdrawnAt: nullable(Instant)
	},
	closed
);

export const ExportedEntry = Type.Object(
	{
		id: Id,
		at: Instant,
		kind: Type.String(),
		document: Slug,
		edition: Type.Integer({ minimum: 1, description: 'its number' }),
		reading: Id,
		reader: Type.Integer({ description: 'a number within this export: the same reader has the same one' }),
		who: oneOf(['visitor', 'member', 'key', 'staff']),
		person: nullable(Email),
		key: nullable(Id),
		reason: nullable(Type.String()),
		source: Type.Object(
			{
				kind: oneOf(['page', 'desk', 'outside', 'direct', 'news']),
				page: nullable(Path),
				placement: nullable(Type.String()),
				site: nullable(Type.String())
			},
			closed
		),
		staff: Type.Boolean(),
		robot: Type.Boolean(),
		preload: Type.Boolean(),
		stamp: nullable(Type.String()),
		pages: nullable(Type.Array(Type.Object({ page: Type.Integer({ minimum: 1 }), seconds: Type.Number() }))),
		device: nullable(oneOf(['computer', 'tablet', 'phone', 'other'])),
		controlled: nullable(Type.Boolean({ description: 'whether the door was anything but open' })),
		leftOut: nullable(oneOf(leftOutRules, { description: 'by which rule it is left out of the figures; made anew where it is taken in' }))
	},
	closed
);

/** The files of JSON lines in an export, in the order in which one builds on another, with the schema of a line. */
export const exportLines = {
	groups: ExportedGroup,
	people: ExportedPerson,
	pictures: ExportedPicture,
	documents: ExportedDocument,
	pages: ExportedPage,
	keys: ExportedKey,
	ledger: ExportedEntry
} as const satisfies Record<string, TSchema>;
export type ExportPart = keyof typeof exportLines;
export type ExportLine<P extends ExportPart> = Static<(typeof exportLines)[P]>;

/** What the README of an export says. */
export const exportReadme = `This folder holds a site of Ianua in open formats.

export.json      what this is: format, when and of which site, how many of each; patterns of former addresses that lead by name
settings.json    what the site is set as
groups.jsonl     groups of members: one JSON value a line (UTF-8), as in all files that end so
people.jsonl     people with their memberships; without passwords
documents.jsonl  documents: words, folder, topics, fields, door, former addresses, and their editions with the files they lie in
pages.jsonl      pages: drafts, what is published, earlier revisions, doors, navigation
keys.jsonl       keys: the hash of each, so that a link that was handed out goes on working where this is taken in
ledger.jsonl     every entry of the ledger, oldest first; readers as numbers within this export
schema.json      the JSON Schema of a line of each of these files
*.csv            the same for spreadsheets (UTF-8): documents, people, keys, ledger
files/           the PDFs, to the bit: <document>.pdf the edition in force, <document>.<number>.pdf the others
pictures/        pictures on pages, and covers that are no page

Instants are RFC 3339 in UTC; days are days in the site's time zone; sizes are bytes; page numbers start at 1.

    ianua import <this folder> --look     says what taking it in would change
    ianua import <this folder>            takes it in, into an empty site or beside what is there

Not in here: passwords, second factors, sessions, tokens for programs, secrets of other websites, webhooks, wishes for mails, who changed what. A
backup (ianua backup) has all of it. Keep this folder as safe as one: it has the names of people and what they read.
`;
