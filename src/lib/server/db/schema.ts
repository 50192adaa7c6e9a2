// The tables, by capability. What Drizzle cannot say (partitions, functions, views, triggers) stands in drizzle/ alone; schema.test.ts holds the
// tables here against those of the database, and looks that `npm run generate` finds nothing to do.
import { sql } from 'drizzle-orm';
import {
	bigint,
	boolean,
	check,
	customType,
	date,
	foreignKey,
	index,
	integer,
	jsonb,
	numeric,
	pgTable,
	primaryKey,
	real,
	text,
	timestamp,
	unique,
	uniqueIndex,
	uuid,
	type AnyPgColumn,
	type PgTableExtraConfigValue
} from 'drizzle-orm/pg-core';
import type { TurnedAwayWords } from '#core/access/door';
import type { Cover } from '#core/documents/cover';
import type { FieldValues } from '#core/documents/fields';
import { editionOrigins } from '#core/documents/edition';
import type { Facts, Finding } from '#core/intake/condition';
import type { Layout, PageContent } from '#core/placing/content';
import type { Scope } from '#core/people/scope';
import type { ReadingSettings } from '#core/reading/settings';
import { newsTimes } from '#core/news/wish';
import { entryKinds } from '#core/readership/counting';
import { receiptAsks } from '#core/readership/receipt';
import { languages, type Language } from '#core/words/words';

const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
const id = () => uuid('id').primaryKey();
const day = (name: string) => date(name, { mode: 'string' });
/** A column has one of some values. */
const oneOf = (column: AnyPgColumn, values: readonly string[]) => sql`${column} in (${sql.raw(values.map((v) => `'${v}'`).join(', '))})`;
/** Types of PostgreSQL that Drizzle has no name for; values as the database prints them. */
const own = (type: string) => customType<{ data: string }>({ dataType: () => type });
const bits = own('bit varying');
const snapshot = own('pg_snapshot');
const searchWords = own('tsvector');
const searchConfig = own('regconfig');

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

/** A passkey of an account (W3C Web Authentication): its public half; the private one stays with whoever holds it. */
export const passkey = pgTable(
	'passkey',
	{
		id: id(),
		userId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		name: text('name'),
		credentialID: text('credential_id').notNull().unique(),
		publicKey: text('public_key').notNull(),
		/** How often it signed, where it counts: a number that goes back is of a copy. */
		counter: bigint('counter', { mode: 'number' }).notNull(),
		deviceType: text('device_type').notNull(),
		backedUp: boolean('backed_up').notNull(),
		transports: text('transports'),
		/** The model of what holds it. */
		aaguid: text('aaguid'),
		createdAt: at('created_at').notNull().defaultNow()
	},
	(t) => [index('passkey_person').on(t.userId)]
);

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
		/** While it is keyed, everyone may know that the thing is there: title, description and for whom it is kept. */
		announced: boolean('announced').notNull().default(false),
		changedAt: at('changed_at').notNull().defaultNow(),
		changedBy: uuid('changed_by')
	},
	(t): PgTableExtraConfigValue[] => [
		check('door_position', sql`${t.position} in ('shut', 'keyed', 'ajar', 'open')`),
		index('door_follows').on(t.followsPage),
		// when hours begin or end next
		index('door_from')
			.on(t.fromAt)
			.where(sql`${t.fromAt} is not null`),
		index('door_until')
			.on(t.untilAt)
			.where(sql`${t.untilAt} is not null`),
		foreignKey({ columns: [t.followsPage], foreignColumns: [page.id], name: 'door_follows_page' }).onDelete('set null')
	]
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
		/** The day by which somebody should look at it again, and who. */
		reviewOn: date('review_on'),
		reviewBy: uuid('review_by').references(() => person.id, { onDelete: 'set null' }),
		/** What it says in the site's fields, by their names. */
		fields: jsonb('fields').$type<FieldValues>().notNull().default({}),
		/** What the cover shows; null is page 1. */
		cover: jsonb('cover').$type<Cover>(),
		/** What the cover shows, for those who do not see it. */
		coverAlt: text('cover_alt').notNull().default(''),
		/** A language set by staff (BCP 47); null is what the file says or its words suggest. */
		language: text('language'),
		/** What it says of its reading room, where that differs from what the site says. */
		reading: jsonb('reading').$type<ReadingSettings>(),
		/** Whether it asks its readers to say that they have read it, and how often; null does not. */
		receipt: text('receipt', { enum: receiptAsks }),
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
		goneAt: at('gone_at'),
		/** The stemming that its words go by, and those of title, description and topics: made by a trigger in drizzle/. */
		config: searchConfig('config').notNull().default('find_simple'),
		words: searchWords('words')
	},
	(t): PgTableExtraConfigValue[] => [
		index('document_created').on(t.createdAt),
		index('document_topics').using('gin', t.topics),
		index('document_aside')
			.on(t.id)
			.where(sql`set_aside_at is not null`),
		index('document_brought').on(t.createdAt, t.id),
		index('document_config').on(t.config),
		index('document_receipt')
			.on(t.id)
			.where(sql`receipt is not null`),
		index('document_edition').on(t.editionId),
		index('document_title').on(sql`lower(title)`, t.id),
		index('document_title_like').using('gin', sql`plain_text(title) gin_trgm_ops`),
		index('document_words').using('gin', t.words),
		// looked at when the transaction ends, which Drizzle cannot say: each of the two needs the other
		foreignKey({ columns: [t.editionId], foreignColumns: [edition.id], name: 'document_edition' }),
		check('document_receipt_check', oneOf(t.receipt, receiptAsks))
	]
);

/** Receipts: that a member has read an edition, said by themselves, once. Kept for as long as both are here, whatever becomes of the ledger's entry. */
export const receipt = pgTable(
	'receipt',
	{
		personId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		documentId: uuid('document_id')
			.notNull()
			.references((): AnyPgColumn => document.id, { onDelete: 'cascade' }),
		editionId: uuid('edition_id')
			.notNull()
			.references((): AnyPgColumn => edition.id, { onDelete: 'cascade' }),
		at: at('at').notNull()
	},
	(t) => [primaryKey({ columns: [t.documentId, t.personId, t.editionId] }), index('receipt_person').on(t.personId), index('receipt_edition').on(t.editionId)]
);

/** Former addresses, each leading to its document for good. */
export const documentAddress = pgTable('document_address', {
	slug: text('slug').primaryKey(),
	documentId: uuid('document_id')
		.notNull()
		.references(() => document.id, { onDelete: 'cascade' })
});

/** Where a document lay on an old website: whoever asks for that is led on to it. */
export const formerAddress = pgTable(
	'former_address',
	{
		id: id(),
		/** As core/placing/former-address writes it, with its query; a pattern has stars in it. */
		path: text('path').notNull().unique(),
		/** Null for a pattern that leads to the document of the name. */
		documentId: uuid('document_id').references(() => document.id, { onDelete: 'cascade' }),
		createdAt: at('created_at').notNull().defaultNow(),
		createdBy: uuid('created_by').references(() => person.id, { onDelete: 'set null' }),
		/** How often somebody came by it, and from which website the last one did. */
		asked: integer('asked').notNull().default(0),
		lastAt: at('last_at'),
		lastFrom: text('last_from')
	},
	(t) => [
		index('former_address_document').on(t.documentId),
		index('former_address_pattern')
			.on(t.path)
			.where(sql`position('*' in ${t.path}) > 0`)
	]
);

/** Addresses that were asked for and that nobody answers: of old websites, most of them. */
export const missedAddress = pgTable('missed_address', {
	path: text('path').primaryKey(),
	asked: integer('asked').notNull().default(1),
	lastAt: at('last_at').notNull().defaultNow(),
	lastFrom: text('last_from')
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
		origin: text('origin', { enum: editionOrigins }).notNull().default('upload'),
		/** Whether a copy packed for reading lies beside the original. */
		packed: boolean('packed').notNull().default(false),
		/** Comes into force when its check is done. */
		pending: boolean('pending').notNull().default(false),
		/** Language that decides the stemming of its words (BCP 47); null where none is known. */
		language: text('language'),
		createdAt: at('created_at').notNull().defaultNow(),
		createdBy: uuid('created_by')
	},
	(t): PgTableExtraConfigValue[] => [
		unique('edition_number').on(t.documentId, t.number),
		index('edition_sha').on(t.sha256),
		index('edition_checking')
			.on(t.createdAt)
			.where(sql`condition = 'checking'`),
		// few, and asked about in every list: these cannot be shown
		index('edition_not_shown')
			.on(t.id)
			.where(sql`condition in ('refused', 'checking')`),
		// looked at when the transaction ends, which Drizzle cannot say
		foreignKey({ columns: [t.documentId], foreignColumns: [document.id], name: 'edition_document' }).onDelete('cascade')
	]
);

/** The words of a document for find: title, description and topics, then its pages in parts; made by `find_text` and `find_pages` in drizzle/. */
export const documentText = pgTable(
	'document_text',
	{
		documentId: uuid('document_id')
			.notNull()
			.references(() => document.id, { onDelete: 'cascade' }),
		part: integer('part').notNull(),
		config: searchConfig('config').notNull(),
		words: searchWords('words').notNull()
	},
	(t) => [primaryKey({ columns: [t.documentId, t.part] }), index('document_text_words').using('gin', t.words)]
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
		body: text('body').notNull(),
		config: searchConfig('config'),
		words: searchWords('words'),
		documentId: uuid('document_id')
	},
	(t) => [primaryKey({ columns: [t.editionId, t.page] }), index('edition_page_words').using('gin', t.words)]
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

export const page = pgTable(
	'page',
	{
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
		/** Who saved the draft last; null where nobody did by hand. */
		draftBy: uuid('draft_by'),
		publishedId: uuid('published_id'),
		/** When the draft is to be published, and who wanted that. */
		publishAt: at('publish_at'),
		publishBy: uuid('publish_by'),
		/** Place in the site's navigation; null stays out of it. */
		navigation: integer('navigation'),
		/** Its few words in the navigation; null gives its title. */
		label: text('label'),
		/** In which readers are spoken to on it; null goes by the site's. */
		language: text('language').$type<Language>(),
		createdAt: at('created_at').notNull().defaultNow(),
		createdBy: uuid('created_by'),
		setAsideAt: at('set_aside_at')
	},
	(t): PgTableExtraConfigValue[] => [
		check('page_language_check', oneOf(t.language, languages)),
		// looked at when the transaction ends, which Drizzle cannot say
		foreignKey({ columns: [t.publishedId], foreignColumns: [revision.id], name: 'page_published' }).onDelete('set null')
	]
);

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
		coverPage: integer('cover_page'),
		/** Of a teaser: the page to which a press leads. */
		leadsTo: uuid('leads_to').references(() => page.id, { onDelete: 'cascade' })
	},
	(t) => [
		primaryKey({ columns: [t.id, t.pageId, t.published] }),
		index('placement_document').on(t.documentId),
		index('placement_leads_to')
			.on(t.leadsTo)
			.where(sql`leads_to is not null`)
	]
);

/** What lists on pages name without naming documents: folders, topics, fields, or all there are. What they have by hand are placements. */
export const listing = pgTable(
	'listing',
	{
		pageId: uuid('page_id')
			.notNull()
			.references(() => page.id, { onDelete: 'cascade' }),
		published: boolean('published').notNull(),
		/** The list's id among those of an article; empty for a catalogue. */
		list: text('list').notNull(),
		everything: boolean('everything').notNull(),
		folders: text('folders').array().notNull(),
		topics: text('topics').array().notNull(),
		fields: jsonb('fields').$type<Record<string, string[]>>().notNull()
	},
	(t) => [primaryKey({ columns: [t.pageId, t.published, t.list] })]
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

/** Another website whose members may read kept documents in frames on its pages, by its passes (core/access/pass). */
export const website = pgTable('website', {
	id: id(),
	/** As its passes name it: `https://www.example.org`. */
	origin: text('origin').notNull().unique(),
	createdAt: at('created_at').notNull().defaultNow(),
	createdBy: uuid('created_by').references(() => person.id, { onDelete: 'set null' }),
	withdrawnAt: at('withdrawn_at')
});

/** Groups that a website may grant. */
export const websiteGroup = pgTable(
	'website_group',
	{
		websiteId: uuid('website_id')
			.notNull()
			.references(() => website.id, { onDelete: 'cascade' }),
		groupId: uuid('group_id')
			.notNull()
			.references(() => group.id, { onDelete: 'cascade' })
	},
	(t) => [primaryKey({ columns: [t.websiteId, t.groupId] })]
);

/** By what a website signs its passes; two at a time while one takes the place of the other. */
export const websiteKey = pgTable(
	'website_key',
	{
		id: id(),
		websiteId: uuid('website_id')
			.notNull()
			.references(() => website.id, { onDelete: 'cascade' }),
		/** A secret of both (HS256), a public key as PEM or JWK, or the address of a set of such (RS256, ES256). */
		kind: text('kind', { enum: ['secret', 'public', 'jwks'] }).notNull(),
		value: text('value').notNull(),
		createdAt: at('created_at').notNull().defaultNow(),
		usedAt: at('used_at'),
		withdrawnAt: at('withdrawn_at')
	},
	(t) => [index('website_key_website').on(t.websiteId), check('website_key_kind_check', oneOf(t.kind, ['secret', 'public', 'jwks']))]
);

/** A person as a website names them: the ledger's reader `w:<id>`. */
export const websitePerson = pgTable(
	'website_person',
	{
		id: id(),
		websiteId: uuid('website_id')
			.notNull()
			.references(() => website.id, { onDelete: 'cascade' }),
		sub: text('sub').notNull(),
		name: text('name').notNull(),
		seenAt: at('seen_at').notNull().defaultNow()
	},
	(t) => [unique('website_person_sub').on(t.websiteId, t.sub)]
);

/** Passes that have been taken, until they would be over anyway. */
export const passTaken = pgTable(
	'pass_taken',
	{
		websiteId: uuid('website_id')
			.notNull()
			.references(() => website.id, { onDelete: 'cascade' }),
		jti: text('jti').notNull(),
		until: at('until').notNull()
	},
	(t) => [primaryKey({ columns: [t.websiteId, t.jti] })]
);

/** What a pass was exchanged for: one document, in one frame, for as long as somebody reads there. */
export const passGrant = pgTable(
	'pass_grant',
	{
		hash: text('hash').primaryKey(),
		personId: uuid('website_person_id')
			.notNull()
			.references(() => websitePerson.id, { onDelete: 'cascade' }),
		keyId: uuid('website_key_id')
			.notNull()
			.references(() => websiteKey.id, { onDelete: 'cascade' }),
		documentId: uuid('document_id')
			.notNull()
			.references(() => document.id, { onDelete: 'cascade' }),
		groups: uuid('groups').array().notNull(),
		until: at('until').notNull()
	},
	(t) => [index('pass_grant_until').on(t.until)]
);

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

// readership: the ledger, where a reading stands, and the sums that reports are made from (docs/decisions/0016, 0017)

/**
 * What readers did. In the database it is partitioned by the month of `at`, which Drizzle cannot say: the table and the making of its
 * partitions (`ledger_month`) stand in drizzle/.
 */
export const ledger = pgTable(
	'ledger',
	{
		id: uuid('id').notNull(),
		at: timestamp('at', { withTimezone: true, mode: 'date', precision: 3 }).notNull(),
		kind: text('kind', { enum: entryKinds }).notNull(),
		documentId: uuid('document_id').notNull(),
		editionId: uuid('edition_id').notNull(),
		readingId: uuid('reading_id').notNull(),
		reader: text('reader').notNull(),
		who: text('who', { enum: ['visitor', 'member', 'key', 'staff'] }).notNull(),
		personId: uuid('person_id'),
		reason: text('reason'),
		sourceKind: text('source_kind', { enum: ['page', 'desk', 'outside', 'direct', 'news'] }).notNull(),
		pageId: uuid('page_id'),
		placementId: text('placement_id'),
		outside: text('outside'),
		staff: boolean('staff').notNull(),
		robot: boolean('robot').notNull(),
		preload: boolean('preload').notNull(),
		keyId: uuid('key_id'),
		stamp: text('stamp'),
		/** Seconds by page. */
		attention: jsonb('attention'),
		device: text('device', { enum: ['computer', 'tablet', 'phone', 'other'] }),
		/** Whether the document's door was anything but open. */
		controlled: boolean('controlled')
	},
	(t) => [
		primaryKey({ columns: [t.id, t.at], name: 'ledger_pkey' }),
		index('ledger_document').on(t.documentId, t.at.desc(), t.id),
		index('ledger_at').on(t.at.desc(), t.id),
		index('ledger_person')
			.on(t.personId, t.at.desc())
			.where(sql`person_id is not null`),
		index('ledger_key')
			.on(t.keyId, t.at.desc())
			.where(sql`key_id is not null`),
		index('ledger_stamp')
			.on(t.stamp)
			.where(sql`stamp is not null`),
		// with document and kind beside it, which Drizzle cannot say
		index('ledger_staff')
			.on(t.at.desc())
			.where(sql`staff`),
		index('ledger_reminded')
			.on(t.documentId, t.personId, t.at.desc())
			.where(sql`kind = 'reminded'`),
		check('ledger_kind_check', oneOf(t.kind, entryKinds)),
		check('ledger_who_check', oneOf(t.who, ['visitor', 'member', 'key', 'staff'])),
		check('ledger_source_kind_check', oneOf(t.sourceKind, ['page', 'desk', 'outside', 'direct', 'news'])),
		check('ledger_device_check', oneOf(t.device, ['computer', 'tablet', 'phone', 'other']))
	]
);

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

/** The key of a day, by which readers who are kept for one day are named; gone with the day. */
export const dayKey = pgTable('day_key', { day: day('day').primaryKey(), key: text('key').notNull() });

/** A number for each reader in the sums: a set of readers is a set of numbers. */
export const reader = pgTable('reader', {
	number: integer('number').primaryKey().generatedAlwaysAsIdentity(),
	name: text('name').notNull().unique('reader_name_key')
});

/** How far the sums are made, in which time zone their days are. One row. */
export const summed = pgTable(
	'summed',
	{
		one: boolean('one').primaryKey().default(true),
		until: at('until').notNull(),
		zone: text('zone').notNull(),
		/** Transactions that were seen: an entry that was written meanwhile is not passed over. */
		seen: snapshot('seen'),
		version: uuid('version').notNull().defaultRandom()
	},
	(t) => [check('summed_one_check', sql`${t.one}`)]
);

const spans = ['day', 'dekad', 'month'] as const;
const span = () => text('span', { enum: spans }).notNull();
const spanCheck = (name: string, column: AnyPgColumn) => check(`${name}_span_check`, oneOf(column, spans));
const count = (name: string) => integer(name).notNull();

/** Figures of a document in a span of days. */
export const sumFigures = pgTable(
	'sum_figures',
	{
		/** First day of the span, in the site's zone. */
		day: day('day').notNull(),
		documentId: uuid('document_id').notNull(),
		openings: count('openings'),
		saves: count('saves'),
		printed: count('printed'),
		refusals: count('refusals'),
		knocks: count('knocks'),
		keysUsed: count('keys_used'),
		shown: count('shown'),
		looks: count('looks'),
		seconds: real('seconds').notNull(),
		uniqueRequests: count('unique_requests'),
		controlled: count('controlled'),
		/** Openings by hour of the week, from Monday 0 h. */
		hours: integer('hours').array().notNull(),
		/** Openings by device. */
		devices: integer('devices').array().notNull(),
		span: span(),
		uniqueInvestigations: integer('unique_investigations').notNull().default(0),
		staffOpenings: integer('staff_openings').notNull().default(0),
		staffSaves: integer('staff_saves').notNull().default(0),
		controlledLooks: integer('controlled_looks').notNull().default(0),
		controlledUniqueRequests: integer('controlled_unique_requests').notNull().default(0),
		controlledUniqueInvestigations: integer('controlled_unique_investigations').notNull().default(0)
	},
	(t) => [
		primaryKey({ columns: [t.day, t.documentId, t.span], name: 'sum_figures_pkey' }),
		index('sum_figures_document').on(t.documentId, t.span, t.day),
		spanCheck('sum_figures', t.span)
	]
);

/** Attention by page. */
export const sumPage = pgTable(
	'sum_page',
	{
		day: day('day').notNull(),
		documentId: uuid('document_id').notNull(),
		editionId: uuid('edition_id').notNull(),
		page: count('page'),
		seconds: real('seconds').notNull(),
		readers: count('readers'),
		/** Readings that ended here. */
		stops: count('stops'),
		span: span()
	},
	(t) => [primaryKey({ columns: [t.day, t.documentId, t.editionId, t.page, t.span], name: 'sum_page_pkey' }), spanCheck('sum_page', t.span)]
);

/** What a reader did with an edition on a day. */
export const sumReader = pgTable(
	'sum_reader',
	{
		day: day('day').notNull(),
		documentId: uuid('document_id').notNull(),
		editionId: uuid('edition_id').notNull(),
		reader: count('reader'),
		personId: uuid('person_id'),
		keyId: uuid('key_id'),
		openings: count('openings'),
		saves: count('saves'),
		printed: count('printed'),
		seconds: real('seconds').notNull(),
		firstAt: at('first_at').notNull(),
		lastAt: at('last_at').notNull(),
		pages: integer('pages').array().notNull(),
		pageSeconds: real('page_seconds').array().notNull()
	},
	(t) => [
		primaryKey({ columns: [t.day, t.documentId, t.editionId, t.reader], name: 'sum_reader_pkey' }),
		index('sum_reader_day')
			.on(t.day, t.documentId, t.reader)
			.where(sql`(openings + saves) > 0`),
		index('sum_reader_key')
			.on(t.keyId, t.day)
			.where(sql`key_id is not null`),
		index('sum_reader_known')
			.on(t.documentId, t.day)
			.where(sql`person_id is not null or key_id is not null`),
		index('sum_reader_person')
			.on(t.personId, t.day)
			.where(sql`person_id is not null`),
		index('sum_reader_reader').on(t.reader, t.day)
	]
);

/** The readers of a document in a span, as a set: bit n stands for the reader with the number n. */
export const sumReaders = pgTable(
	'sum_readers',
	{
		span: span(),
		day: day('day').notNull(),
		documentId: uuid('document_id').notNull(),
		readers: bits('readers').notNull(),
		bits: integer('bits')
			.notNull()
			.generatedAlwaysAs(sql`length(readers)`)
	},
	(t) => [
		primaryKey({ columns: [t.span, t.day, t.documentId], name: 'sum_readers_pkey' }),
		index('sum_readers_day').on(t.span, t.day),
		spanCheck('sum_readers', t.span)
	]
);

/** How often each reason turned somebody away, by where they came from. */
export const sumReason = pgTable(
	'sum_reason',
	{
		span: span(),
		day: day('day').notNull(),
		documentId: uuid('document_id').notNull(),
		reason: text('reason').notNull(),
		pageId: uuid('page_id').notNull(),
		times: count('times'),
		lastAt: at('last_at').notNull()
	},
	(t) => [
		primaryKey({ columns: [t.span, t.day, t.documentId, t.reason, t.pageId], name: 'sum_reason_pkey' }),
		index('sum_reason_day').on(t.span, t.day),
		spanCheck('sum_reason', t.span)
	]
);

/** Who was turned away on a day, why, and how often. */
export const sumRefused = pgTable(
	'sum_refused',
	{
		day: day('day').notNull(),
		documentId: uuid('document_id').notNull(),
		reason: text('reason').notNull(),
		pageId: uuid('page_id').notNull(),
		reader: count('reader'),
		personId: uuid('person_id'),
		keyId: uuid('key_id'),
		times: count('times'),
		lastAt: at('last_at').notNull()
	},
	(t) => [
		index('sum_refused_day').on(t.day, t.documentId),
		index('sum_refused_document').on(t.documentId, t.reason, t.pageId, t.day, t.reader, t.personId),
		index('sum_refused_key')
			.on(t.keyId, t.day)
			.where(sql`key_id is not null`),
		index('sum_refused_person')
			.on(t.personId, t.day)
			.where(sql`person_id is not null`)
	]
);

/** Readers who behaved like a robot on a day. */
export const sumRobot = pgTable('sum_robot', { day: day('day').notNull(), reader: text('reader').notNull() }, (t) => [
	primaryKey({ columns: [t.day, t.reader], name: 'sum_robot_pkey' })
]);

/** Where readers came from. */
export const sumSource = pgTable(
	'sum_source',
	{
		day: day('day').notNull(),
		documentId: uuid('document_id').notNull(),
		kind: text('kind').notNull(),
		pageId: uuid('page_id'),
		placementId: text('placement_id'),
		outside: text('outside'),
		keyId: uuid('key_id'),
		shown: count('shown'),
		looks: count('looks'),
		openings: count('openings'),
		saves: count('saves'),
		span: span()
	},
	(t) => [
		index('sum_source_day').on(t.span, t.day, t.documentId),
		index('sum_source_document').on(t.documentId, t.span, t.day),
		spanCheck('sum_source', t.span)
	]
);

/** How far a reader has come in an edition, over all time. */
export const progress = pgTable(
	'progress',
	{
		documentId: uuid('document_id').notNull(),
		editionId: uuid('edition_id').notNull(),
		reader: count('reader'),
		openings: count('openings'),
		saves: count('saves'),
		printed: count('printed'),
		seconds: real('seconds').notNull(),
		pagesRead: count('pages_read'),
		furthest: count('furthest'),
		firstAt: at('first_at').notNull(),
		lastAt: at('last_at').notNull()
	},
	(t) => [primaryKey({ columns: [t.documentId, t.editionId, t.reader], name: 'progress_pkey' }), index('progress_reader').on(t.reader)]
);

/** Reports that somebody gets by mail: of a document, or of the site where none is named. */
export const reportMail = pgTable(
	'report_mail',
	{
		id: id(),
		personId: uuid('person_id').notNull(),
		documentId: uuid('document_id'),
		every: text('every', { enum: ['week', 'month'] }).notNull(),
		nextAt: at('next_at').notNull()
	},
	(t) => [
		uniqueIndex('report_mail_of').on(t.personId, sql`coalesce(document_id, '00000000-0000-0000-0000-000000000000'::uuid)`),
		foreignKey({ columns: [t.personId], foreignColumns: [person.id], name: 'report_mail_person_id_fkey' }).onDelete('cascade'),
		foreignKey({ columns: [t.documentId], foreignColumns: [document.id], name: 'report_mail_document_id_fkey' }).onDelete('cascade'),
		check('report_mail_every_check', oneOf(t.every, ['week', 'month']))
	]
);

/** Who is told when a document is first opened, by anybody or by somebody. */
export const firstOpening = pgTable(
	'first_opening',
	{
		id: id(),
		personId: uuid('person_id').notNull(),
		documentId: uuid('document_id').notNull(),
		byPerson: uuid('by_person'),
		askedAt: at('asked_at').notNull().defaultNow(),
		toldAt: at('told_at')
	},
	(t) => [
		uniqueIndex('first_opening_of')
			.on(t.personId, t.documentId, sql`coalesce(by_person, '00000000-0000-0000-0000-000000000000'::uuid)`)
			.where(sql`told_at is null`),
		foreignKey({ columns: [t.personId], foreignColumns: [person.id], name: 'first_opening_person_id_fkey' }).onDelete('cascade'),
		foreignKey({ columns: [t.documentId], foreignColumns: [document.id], name: 'first_opening_document_id_fkey' }).onDelete('cascade'),
		foreignKey({ columns: [t.byPerson], foreignColumns: [person.id], name: 'first_opening_by_person_fkey' }).onDelete('cascade')
	]
);

// news: what came out, who wishes to be told of it, and what they were told

/** Editions that somebody besides staff may read, or could once: since when, and for whom, as their doors stood when they were last looked at. */
export const news = pgTable(
	'news',
	{
		editionId: uuid('edition_id')
			.primaryKey()
			.references(() => edition.id, { onDelete: 'cascade' }),
		documentId: uuid('document_id')
			.notNull()
			.references(() => document.id, { onDelete: 'cascade' }),
		at: at('at').notNull(),
		/** When its door last came to admit somebody whom it had not admitted. */
		widerAt: at('wider_at').notNull(),
		everyone: boolean('everyone').notNull(),
		allMembers: boolean('all_members').notNull(),
		groups: uuid('groups').array().notNull(),
		people: uuid('people').array().notNull()
	},
	(t) => [index('news_at').on(t.at.desc()), index('news_document').on(t.documentId, t.at)]
);

/** Of what somebody wishes to be told by mail: of a document, of a folder, or of all there is. */
export const newsWish = pgTable(
	'news_wish',
	{
		id: id(),
		personId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		documentId: uuid('document_id').references(() => document.id, { onDelete: 'cascade' }),
		folder: text('folder'),
		every: text('every', { enum: newsTimes }).notNull(),
		/** In which they are told. */
		language: text('language', { enum: languages }).notNull(),
		madeAt: at('made_at').notNull().defaultNow(),
		/** What came out until then has been looked at. */
		lookedAt: at('looked_at').notNull().defaultNow(),
		nextAt: at('next_at').notNull()
	},
	(t) => [
		unique('news_wish_of').on(t.personId, t.documentId, t.folder).nullsNotDistinct(),
		index('news_wish_next').on(t.nextAt),
		check('news_wish_one', sql`document_id is null or folder is null`),
		check('news_wish_every', oneOf(t.every, newsTimes))
	]
);

/** What somebody was told of. */
export const newsTold = pgTable(
	'news_told',
	{
		personId: uuid('person_id')
			.notNull()
			.references(() => person.id, { onDelete: 'cascade' }),
		editionId: uuid('edition_id')
			.notNull()
			.references(() => edition.id, { onDelete: 'cascade' }),
		at: at('at').notNull().defaultNow()
	},
	(t) => [primaryKey({ columns: [t.personId, t.editionId] })]
);

/** Whose feed has an address, and what makes it another one than the last. */
export const newsFeed = pgTable('news_feed', {
	personId: uuid('person_id')
		.primaryKey()
		.references(() => person.id, { onDelete: 'cascade' }),
	nonce: text('nonce').notNull(),
	madeAt: at('made_at').notNull().defaultNow()
});

/** What programs asked under an `Idempotency-Key`: digests of the key and of what was asked, and the answer, to be read with the key alone. */
export const idempotencyKey = pgTable(
	'idempotency_key',
	{
		id: text('id').primaryKey(),
		request: text('request').notNull(),
		at: at('at').notNull().defaultNow(),
		/** Null until it was answered. */
		answer: text('answer')
	},
	(t) => [index('idempotency_key_at').on(t.at)]
);

/** A program elsewhere that is told what happens. */
export const webhook = pgTable(
	'webhook',
	{
		id: id(),
		url: text('url').notNull(),
		secret: text('secret').notNull(),
		/** The one before, with which messages are signed as well until an instant. */
		earlierSecret: text('earlier_secret'),
		earlierUntil: at('earlier_until'),
		events: text('events').array().notNull(),
		createdAt: at('created_at').notNull().defaultNow(),
		createdBy: uuid('created_by'),
		/** Entries until then have been made into deliveries. */
		gatheredUntil: at('gathered_until').notNull().defaultNow(),
		withdrawnAt: at('withdrawn_at'),
		/** Why it was ended. */
		ended: text('ended'),
		/** The token of the program that made it. */
		tokenId: uuid('token_id')
	},
	(t) => [foreignKey({ columns: [t.createdBy], foreignColumns: [person.id], name: 'webhook_created_by_fkey' }).onDelete('set null')]
);

export const webhookDelivery = pgTable(
	'webhook_delivery',
	{
		id: id(),
		webhookId: uuid('webhook_id').notNull(),
		eventId: text('event_id').notNull(),
		body: jsonb('body').notNull(),
		at: at('at').notNull().defaultNow(),
		tries: integer('tries').notNull().default(0),
		/** Null once it is not tried any more. */
		nextAt: at('next_at').defaultNow(),
		deliveredAt: at('delivered_at'),
		/** What the program answered last. */
		answer: text('answer')
	},
	(t) => [
		index('webhook_delivery_due')
			.on(t.nextAt)
			.where(sql`delivered_at is null and next_at is not null`),
		index('webhook_delivery_at').on(t.at, t.id),
		unique('webhook_delivery_webhook_id_event_id_key').on(t.webhookId, t.eventId),
		foreignKey({ columns: [t.webhookId], foreignColumns: [webhook.id], name: 'webhook_delivery_webhook_id_fkey' }).onDelete('cascade')
	]
);
