// The tables, by capability. The ledger is partitioned by month, which Drizzle cannot say: its SQL stands in drizzle/.
import { sql } from 'drizzle-orm';
import {
	bigint,
	boolean,
	check,
	date,
	index,
	integer,
	jsonb,
	numeric,
	pgTable,
	primaryKey,
	text,
	timestamp,
	unique,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import type { TurnedAwayWords } from '#core/access/door';
import type { Cover } from '#core/documents/cover';
import type { Facts, Finding } from '#core/intake/condition';
import type { Layout, PageContent } from '#core/placing/content';
import type { Scope } from '#core/people/scope';
import type { ReadingSettings } from '#core/reading/settings';
import type { Language } from '#core/words/words';

const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
const id = () => uuid('id').primaryKey();

// people: sign-in (better-auth's tables), groups, memberships

export const person = pgTable(
	'person',
	{
		id: id(),
		name: text('name').notNull(),
		email: text('email').notNull().unique(),
		emailVerified: boolean('email_verified').notNull().default(false),
		image: text('image'),
		role: text('role', { enum: ['owner', 'editor', 'member'] })
			.notNull()
			.default('member'),
		suspended: boolean('suspended').notNull().default(false),
		createdAt: at('created_at').notNull().defaultNow(),
		updatedAt: at('updated_at').notNull().defaultNow(),
		/** When a staff account was closed; what it had started then belongs to somebody else. */
		closedAt: at('closed_at'),
		/** Signing in asks for a code besides the password. */
		twoFactorEnabled: boolean('second_factor').notNull().default(false)
	},
	(t) => [check('person_role', sql`${t.role} in ('owner', 'editor', 'member')`)]
);

export const session = pgTable(
	'session',
	{
		id: id(),
		token: text('token').notNull().unique(),
		userId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		expiresAt: at('expires_at').notNull(),
		ipAddress: text('ip_address'),
		userAgent: text('user_agent'),
		createdAt: at('created_at').notNull(),
		updatedAt: at('updated_at').notNull()
	},
	(t) => [index('session_person').on(t.userId)]
);

export const account = pgTable(
	'account',
	{
		id: id(),
		accountId: text('account_id').notNull(),
		providerId: text('provider_id').notNull(),
		userId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		accessToken: text('access_token'),
		refreshToken: text('refresh_token'),
		idToken: text('id_token'),
		accessTokenExpiresAt: at('access_token_expires_at'),
		refreshTokenExpiresAt: at('refresh_token_expires_at'),
		scope: text('scope'),
		password: text('password'),
		createdAt: at('created_at').notNull(),
		updatedAt: at('updated_at').notNull()
	},
	(t) => [index('account_person').on(t.userId)]
);

export const verification = pgTable('verification', {
	id: text('id').primaryKey(),
	identifier: text('identifier').notNull(),
	value: text('value').notNull(),
	expiresAt: at('expires_at').notNull(),
	createdAt: at('created_at').notNull(),
	updatedAt: at('updated_at').notNull()
});

/** The second factor of an account (TOTP, RFC 6238), encrypted under the site's secret by better-auth. */
export const secondFactor = pgTable('second_factor', {
	id: id(),
	secret: text('secret').notNull(),
	backupCodes: text('backup_codes').notNull(),
	userId: uuid('person_id')
		.notNull()
		.unique()
		.references(() => person.id, { onDelete: 'cascade' }),
	verified: boolean('verified').default(true),
	failedVerificationCount: integer('failed_tries').default(0),
	lockedUntil: at('locked_until')
});

export const rateLimit = pgTable('rate_limit', {
	id: id(),
	key: text('key').notNull().unique(),
	count: integer('count').notNull(),
	/** Of the first of them, ms. */
	lastRequest: bigint('last_request', { mode: 'number' }).notNull()
});

export const group = pgTable('member_group', {
	id: id(),
	slug: text('slug').notNull().unique(),
	name: text('name').notNull(),
	description: text('description').notNull().default(''),
	createdAt: at('created_at').notNull().defaultNow()
});

export const membership = pgTable(
	'membership',
	{
		id: id(),
		personId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		groupId: uuid('group_id')
			.notNull()
			.references(() => group.id, { onDelete: 'cascade' }),
		/** Days in the site's zone, both included. */
		fromDay: date('from_day', { mode: 'string' }),
		untilDay: date('until_day', { mode: 'string' })
	},
	(t) => [index('membership_group').on(t.groupId, t.personId), index('membership_person').on(t.personId)]
);

// access

export const door = pgTable(
	'door',
	{
		id: id(),
		position: text('position', { enum: ['shut', 'keyed', 'ajar', 'open'] })
			.notNull()
			.default('shut'),
		allMembers: boolean('all_members').notNull().default(false),
		listed: boolean('listed').notNull().default(true),
		/** A day (YYYY-MM-DD, the site's zone) or an RFC 3339 instant, as it was given. */
		fromBound: text('from_bound'),
		untilBound: text('until_bound'),
		/** The bounds as instants, in the site's zone. */
		fromAt: at('from_at'),
		untilAt: at('until_at'),
		allowSave: boolean('allow_save').notNull().default(true),
		allowPrint: boolean('allow_print').notNull().default(true),
		/** The page whose door a document follows. */
		followsPage: uuid('follows_page'),
		turnedAway: jsonb('turned_away').$type<TurnedAwayWords>(),
		/** Saved copies carry the reader's name and the date on each page. */
		stamped: boolean('stamped').notNull().default(false),
		changedAt: at('changed_at').notNull().defaultNow(),
		changedBy: uuid('changed_by')
	},
	(t) => [check('door_position', sql`${t.position} in ('shut', 'keyed', 'ajar', 'open')`), index('door_follows').on(t.followsPage)]
);

export const doorGroup = pgTable(
	'door_group',
	{
		doorId: uuid('door_id')
			.notNull()
			.references(() => door.id, { onDelete: 'cascade' }),
		groupId: uuid('group_id')
			.notNull()
			.references(() => group.id, { onDelete: 'cascade' })
	},
	(t) => [primaryKey({ columns: [t.doorId, t.groupId] })]
);

export const doorPerson = pgTable(
	'door_person',
	{
		doorId: uuid('door_id')
			.notNull()
			.references(() => door.id, { onDelete: 'cascade' }),
		personId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' })
	},
	(t) => [primaryKey({ columns: [t.doorId, t.personId] })]
);

// documents

export const document = pgTable(
	'document',
	{
		id: id(),
		slug: text('slug').notNull().unique(),
		title: text('title').notNull(),
		description: text('description').notNull().default(''),
		/** The folder it stands in; empty at the top. */
		folder: text('folder').notNull().default(''),
		topics: text('topics')
			.array()
			.notNull()
			.default(sql`'{}'::text[]`),
		/** What the cover shows; null is page 1. */
		cover: jsonb('cover').$type<Cover>(),
		/** What the cover shows, for those who do not see it. */
		coverAlt: text('cover_alt').notNull().default(''),
		/** A language set by staff (BCP 47); null is what the file says or its words suggest. */
		language: text('language'),
		/** What it says of its reading room, where that differs from what the site says. */
		reading: jsonb('reading').$type<ReadingSettings>(),
		doorId: uuid('door_id')
			.notNull()
			.unique()
			.references(() => door.id),
		editionId: uuid('edition_id').notNull(),
		createdAt: at('created_at').notNull().defaultNow(),
		createdBy: uuid('created_by'),
		setAsideAt: at('set_aside_at'),
		setAsideBy: uuid('set_aside_by'),
		/** When what was set aside could no longer be restored: its files are gone, its address answers 410. */
		goneAt: at('gone_at')
	},
	(t) => [index('document_created').on(t.createdAt), index('document_topics').using('gin', t.topics)]
);

/** Former addresses, each leading to its document for good. */
export const documentAddress = pgTable('document_address', {
	slug: text('slug').primaryKey(),
	documentId: uuid('document_id')
		.notNull()
		.references(() => document.id, { onDelete: 'cascade' })
});

export const edition = pgTable(
	'edition',
	{
		id: id(),
		documentId: uuid('document_id').notNull(),
		number: integer('number').notNull(),
		sha256: text('sha256').notNull(),
		bytes: bigint('bytes', { mode: 'number' }).notNull(),
		fileName: text('file_name').notNull(),
		pages: integer('pages').notNull(),
		facts: jsonb('facts').$type<Facts>().notNull(),
		condition: text('condition', { enum: ['checking', 'sound', 'look', 'refused'] }).notNull(),
		findings: jsonb('findings').$type<readonly Finding[]>().notNull(),
		/** How it came: from a computer, a web address, or made here from another edition. */
		origin: text('origin', { enum: ['upload', 'web', 'cleaned', 'unlocked'] })
			.notNull()
			.default('upload'),
		/** Whether a copy packed for reading lies beside the original. */
		packed: boolean('packed').notNull().default(false),
		/** Comes into force when its check is done. */
		pending: boolean('pending').notNull().default(false),
		/** Language that decides the stemming of its words (BCP 47); null where none is known. */
		language: text('language'),
		createdAt: at('created_at').notNull().defaultNow(),
		createdBy: uuid('created_by')
	},
	(t) => [
		unique('edition_number').on(t.documentId, t.number),
		index('edition_sha').on(t.sha256),
		index('edition_checking')
			.on(t.createdAt)
			.where(sql`condition = 'checking'`)
	]
);

/**
 * The words on each page of an edition. For pages of the edition in force find_pages in drizzle/ makes `words`, by the stemming of
 * `config`, and sets `document_id`.
 */
export const editionPage = pgTable(
	'edition_page',
	{
		editionId: uuid('edition_id')
			.notNull()
			.references(() => edition.id, { onDelete: 'cascade' }),
		page: integer('page').notNull(),
		body: text('body').notNull()
	},
	(t) => [primaryKey({ columns: [t.editionId, t.page] })]
);

// intake

/** A file on its way in. Its id is also the upload's in the tus protocol, and the name of its bytes among the unfinished files. */
export const intake = pgTable(
	'intake',
	{
		id: id(),
		personId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		fileName: text('file_name').notNull(),
		bytes: bigint('bytes', { mode: 'number' }).notNull(),
		state: text('state', { enum: ['uploading', 'checking', 'in', 'refused', 'stopped'] }).notNull(),
		/** The error of the catalogue that refused it. */
		trouble: jsonb('trouble').$type<{ code: string; facts: Record<string, string> }>(),
		/** The document it is to be a new edition of. */
		editionOf: uuid('edition_of').references(() => document.id, { onDelete: 'cascade' }),
		folder: text('folder').notNull().default(''),
		documentId: uuid('document_id').references(() => document.id, { onDelete: 'cascade' }),
		/** The request that writes to it, and until when it holds that right unless it says so again. */
		writer: uuid('writer'),
		writerUntil: at('writer_until'),
		/** Whether another request waits to write. */
		writerAsked: boolean('writer_asked').notNull().default(false),
		/** Taken out of the tray by its person. */
		cleared: boolean('cleared').notNull().default(false),
		createdAt: at('created_at').notNull().defaultNow(),
		changedAt: at('changed_at').notNull().defaultNow()
	},
	(t) => [index('intake_person').on(t.personId, t.createdAt), index('intake_document').on(t.documentId)]
);

/** The web address a document was fetched from. */
export const source = pgTable('source', {
	documentId: uuid('document_id')
		.primaryKey()
		.references(() => document.id, { onDelete: 'cascade' }),
	url: text('url').notNull(),
	watch: boolean('watch').notNull().default(false),
	etag: text('etag'),
	lastModified: text('last_modified'),
	/** Of the bytes last fetched and taken. */
	sha256: text('sha256').notNull(),
	state: text('state', { enum: ['same', 'changed', 'gone', 'unreachable'] })
		.notNull()
		.default('same'),
	/** What to know of `state`, in words. */
	note: text('note').notNull().default(''),
	checkedAt: at('checked_at').notNull().defaultNow(),
	/** Checksum of the changed file that is offered as a new edition. */
	offered: text('offered'),
	/** Checksum of a changed file that staff left alone; it is not offered again. */
	leftAlone: text('left_alone')
});

export const savedFilter = pgTable(
	'saved_filter',
	{
		id: id(),
		personId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		name: text('name').notNull(),
		/** The query of the room's address. */
		query: text('query').notNull()
	},
	(t) => [unique('saved_filter_name').on(t.personId, t.name)]
);

// tokens for programs, and invitations of staff: only their hashes are kept

export const apiToken = pgTable('api_token', {
	id: id(),
	personId: uuid('person_id')
		.notNull()
		.references(() => person.id, { onDelete: 'cascade' }),
	label: text('label').notNull(),
	hash: text('hash').notNull().unique(),
	scopes: text('scopes').array().$type<Scope[]>().notNull(),
	/** Only documents in these folders; null is all of them. */
	folders: text('folders').array(),
	/** Its last day, in the site's zone. */
	untilDay: date('until_day', { mode: 'string' }).notNull(),
	createdAt: at('created_at').notNull().defaultNow(),
	usedAt: at('used_at'),
	withdrawnAt: at('withdrawn_at')
});

export const invitation = pgTable('invitation', {
	id: id(),
	email: text('email').notNull(),
	name: text('name').notNull(),
	role: text('role', { enum: ['owner', 'editor', 'member'] }).notNull(),
	hash: text('hash').notNull().unique(),
	createdAt: at('created_at').notNull().defaultNow(),
	createdBy: uuid('created_by').references(() => person.id, { onDelete: 'set null' }),
	expiresAt: at('expires_at').notNull(),
	acceptedAt: at('accepted_at'),
	/** Its address was shown to an owner, as there was no mail: who takes it up is confirmed once there is. */
	shown: boolean('shown').notNull().default(false)
});

// placing

export const page = pgTable('page', {
	id: id(),
	path: text('path').notNull().unique(),
	title: text('title').notNull(),
	layout: text('layout').$type<Layout>().notNull().default('article'),
	doorId: uuid('door_id')
		.notNull()
		.unique()
		.references(() => door.id),
	draft: jsonb('draft').$type<PageContent>().notNull(),
	draftTitle: text('draft_title').notNull(),
	/** Counts the saves of the draft, so that two writers do not overwrite each other unseen. */
	draftNumber: integer('draft_number').notNull().default(1),
	draftAt: at('draft_at').notNull().defaultNow(),
	publishedId: uuid('published_id'),
	/** When the draft is to be published, and who wanted that. */
	publishAt: at('publish_at'),
	publishBy: uuid('publish_by'),
	/** Place in the site's navigation; null stays out of it. */
	navigation: integer('navigation'),
	/** In which readers are spoken to on it; null goes by the site's. */
	language: text('language').$type<Language>(),
	createdAt: at('created_at').notNull().defaultNow(),
	createdBy: uuid('created_by'),
	setAsideAt: at('set_aside_at')
});

export const revision = pgTable(
	'revision',
	{
		id: id(),
		pageId: uuid('page_id')
			.notNull()
			.references(() => page.id, { onDelete: 'cascade' }),
		number: integer('number').notNull(),
		title: text('title').notNull(),
		content: jsonb('content').$type<PageContent>().notNull(),
		publishedAt: at('published_at').notNull().defaultNow(),
		publishedBy: uuid('published_by')
	},
	(t) => [unique('revision_number').on(t.pageId, t.number)]
);

/** Where documents stand: made anew from a page's content whenever it is saved or published. */
export const placement = pgTable(
	'placement',
	{
		/** The id that the placement carries in the content and in addresses. */
		id: text('id').notNull(),
		pageId: uuid('page_id')
			.notNull()
			.references(() => page.id, { onDelete: 'cascade' }),
		documentId: uuid('document_id')
			.notNull()
			.references(() => document.id, { onDelete: 'cascade' }),
		form: text('form').notNull(),
		press: text('press').notNull(),
		published: boolean('published').notNull(),
		/** Those whom the document turns away are meant to see a locked card. */
		locked: boolean('locked').notNull().default(false),
		/** The page that its cover shows, where that is not the document's. */
		coverPage: integer('cover_page')
	},
	(t) => [primaryKey({ columns: [t.id, t.pageId, t.published] }), index('placement_document').on(t.documentId)]
);

/** Side doors that are meant to be. */
export const sideDoor = pgTable(
	'side_door',
	{
		pageId: uuid('page_id')
			.notNull()
			.references(() => page.id, { onDelete: 'cascade' }),
		documentId: uuid('document_id')
			.notNull()
			.references(() => document.id, { onDelete: 'cascade' }),
		why: text('why').notNull(),
		markedAt: at('marked_at').notNull().defaultNow(),
		markedBy: uuid('marked_by').references(() => person.id, { onDelete: 'set null' })
	},
	(t) => [primaryKey({ columns: [t.pageId, t.documentId] })]
);

/** Pictures on pages and the site's mark, kept in the store under their checksums. */
export const picture = pgTable('picture', {
	sha256: text('sha256').primaryKey(),
	width: integer('width').notNull(),
	height: integer('height').notNull(),
	createdAt: at('created_at').notNull().defaultNow(),
	createdBy: uuid('created_by').references(() => person.id, { onDelete: 'set null' })
});

// readership: the ledger itself is in drizzle/ (partitioned); this is where a reading stands

/** The reading that a reader is in, one row for each reader, document and kind: tells a new opening from its follow-ups. */
export const reading = pgTable(
	'reading',
	{
		/** Of a document: no foreign key, which would lock its row at every entry. */
		documentId: uuid('document_id').notNull(),
		reader: text('reader').notNull(),
		kind: text('kind').notNull(),
		readingId: uuid('reading_id').notNull(),
		lastAt: at('last_at').notNull(),
		/** Seconds of attention told in this reading so far. */
		told: numeric('told').notNull().default('0')
	},
	(t) => [uniqueIndex('reading_key').on(t.documentId, t.reader, t.kind)]
);

// the site and what happened to it

export const setting = pgTable('setting', { key: text('key').primaryKey(), value: jsonb('value').notNull() });

export const audit = pgTable(
	'audit',
	{
		id: id(),
		at: at('at').notNull().defaultNow(),
		actor: uuid('actor'),
		action: text('action').notNull(),
		kind: text('kind').notNull(),
		thing: uuid('thing').notNull(),
		before: jsonb('before'),
		after: jsonb('after')
	},
	(t) => [index('audit_thing').on(t.kind, t.thing, t.at), index('audit_at').on(t.at)]
);

/** Keys: links handed to somebody outside. Only the token's hash is kept. */
export const doorKey = pgTable(
	'door_key',
	{
		id: id(),
		documentId: uuid('document_id')
			.notNull()
			.references(() => document.id, { onDelete: 'cascade' }),
		hash: text('hash').notNull().unique(),
		label: text('label').notNull(),
		allowSave: boolean('allow_save').notNull(),
		allowPrint: boolean('allow_print').notNull(),
		/** A day in the site's zone or an instant; through the whole of the day. */
		untilBound: text('until_bound'),
		/** How many openings it gives; null without number. */
		openings: integer('openings'),
		/** Openings it has given. */
		used: integer('used').notNull().default(0),
		passwordHash: text('password_hash'),
		/** The address it was mailed to. */
		mailedTo: text('mailed_to'),
		createdAt: at('created_at').notNull().defaultNow(),
		createdBy: uuid('created_by').references(() => person.id, { onDelete: 'set null' }),
		withdrawnAt: at('withdrawn_at'),
		withdrawnBy: uuid('withdrawn_by').references(() => person.id, { onDelete: 'set null' }),
		/** The token of the program that issued it. */
		tokenId: uuid('token_id')
	},
	(t) => [index('door_key_document').on(t.documentId, t.createdAt)]
);

/** Tries that are limited in number, whichever server they reach. */
export const attempt = pgTable('attempt', {
	name: text('name').primaryKey(),
	tries: integer('tries').notNull(),
	since: at('since').notNull()
});

/** Somebody turned away asks to be let in. */
export const knock = pgTable(
	'knock',
	{
		id: id(),
		documentId: uuid('document_id')
			.notNull()
			.references(() => document.id, { onDelete: 'cascade' }),
		email: text('email').notNull(),
		words: text('words').notNull(),
		/** Why they were turned away. */
		reason: text('reason').notNull(),
		/** Who knocked, where they were signed in. */
		personId: uuid('person_id').references(() => person.id, { onDelete: 'cascade' }),
		at: at('at').notNull().defaultNow(),
		answer: text('answer', { enum: ['group', 'key', 'declined'] }),
		/** The group they were put in, or the key's id. */
		given: text('given'),
		answeredAt: at('answered_at'),
		answeredBy: uuid('answered_by').references(() => person.id, { onDelete: 'set null' })
	},
	(t) => [
		index('knock_document').on(t.documentId, t.at),
		index('knock_waiting')
			.on(t.at)
			.where(sql`answered_at is null`)
	]
);

/** A saved copy that carries a name: by its number it is known whose it is. */
export const stamp = pgTable(
	'stamp',
	{
		number: text('number').primaryKey(),
		documentId: uuid('document_id')
			.notNull()
			.references(() => document.id, { onDelete: 'cascade' }),
		editionId: uuid('edition_id')
			.notNull()
			.references(() => edition.id, { onDelete: 'cascade' }),
		/** What stands on the pages: the name or the key's label. */
		name: text('name').notNull(),
		/** Member or key. */
		holder: text('holder').notNull(),
		/** The day that stands on the pages, in the site's zone. */
		day: date('day', { mode: 'string' }).notNull(),
		at: at('at').notNull().defaultNow()
	},
	(t) => [unique('stamp_holder').on(t.editionId, t.holder, t.day)]
);
