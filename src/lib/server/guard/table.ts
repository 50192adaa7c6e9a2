// Who comes to which route: one entry for each, by the id under which the framework routes. A route without an entry answers nobody.
// This is the first of two locks; the second is `member`, `staff` or `owner` (guard.ts) at the head of every load, action and handler.
import type { Scope } from '#core/people/scope';

/**
 * `everyone`: the route decides by itself, by a door, a secret in its address, or not at all. `near`: staff, or whoever asks from the
 * machine itself.
 */
export type Admits = 'everyone' | 'near' | 'member' | 'staff' | 'owner';

export interface Entry {
	readonly admits: Admits;
	/** Whom POST, PUT, PATCH and DELETE admit, where that is fewer. */
	readonly changes?: Admits;
	/** What a token needs, all of it: to look (GET, HEAD, OPTIONS) and to change. Nothing named: no token comes here. */
	readonly looks?: readonly Scope[];
	readonly does?: readonly Scope[];
	/**
	 * How a token that is bound to folders is held to them here: by the document that the address names, or by the handler itself.
	 * Nothing: such a token does not come here.
	 */
	readonly folders?: 'document' | 'handler';
	/** What a refusal looks like: problem details (RFC 9457), or a page. */
	readonly answers: 'problem' | 'page';
	/** Its words are English, whatever the reader's language. */
	readonly english?: true;
	/** Staff may look at it as somebody else would (`?try=`). */
	readonly tried?: true;
	/** The pass of another website counts here: what it shows is a document in its frame, or a part of one. */
	readonly byPass?: true;
	/** Forms on other websites may be sent here: what they carry decides alone, no cookie does. */
	readonly fromElsewhere?: true;
	/** Bodies may be as large as a file may be; elsewhere they are small. */
	readonly takesFiles?: true;
	/** Its address is a secret: it is told to no other site, and kept in no cache. */
	readonly secret?: true;
	/** Whoever comes with the same cookies, and asks for nothing but the address, gets the same until something changes (http/kept-pages.ts). */
	readonly same?: true;
	/** What is sent here changes nothing that anybody is shown (readers' programs tell by it how they read). */
	readonly silent?: true;
	/** Fields of its forms that go along to the sign-in where a session has ended; the page offers them again. */
	readonly again?: readonly string[];
	/** It answers although the site has no owner yet. */
	readonly beforeBegin?: true;
	/** It answers whoever cannot be known because the database is gone. */
	readonly withoutDatabase?: true;
}

const page = (admits: Admits, more: Partial<Entry> = {}): Entry => ({ admits, answers: 'page', ...more });
const desk = (more: Partial<Entry> = {}): Entry => ({ admits: 'staff', answers: 'page', english: true, ...more });
const api = (looks: readonly Scope[], does: readonly Scope[] = [], more: Partial<Entry> = {}): Entry => ({
	admits: 'staff',
	answers: 'problem',
	looks,
	does,
	beforeBegin: true,
	...more
});
/** Part of a document: its door decides. A program reads it by its token's scope. */
const part = (more: Partial<Entry> = {}): Entry => page('everyone', { looks: ['documents:read'], folders: 'handler', tried: true, byPass: true, ...more });

const documents = [['documents:read'], ['documents:write']] as const;
const oneDocument = (more: Partial<Entry> = {}) => api(...documents, { folders: 'document', ...more });
const pages = [['pages:read'], ['pages:write']] as const;
const people = [['people:read'], ['people:write']] as const;
const readership = [['readership:read']] as const;
const own = () => api([]);

export const table: Readonly<Record<string, Entry>> = {
	// the site
	'/(site)/[...path]': page('everyone', { tried: true, same: true }),
	'/(site)/[...path]/feed.atom': page('everyone', { answers: 'problem', same: true }),
	'/d/[slug]': part({ changes: 'member' }),
	'/d/[slug]/attachment/[number]': part(),
	'/d/[slug]/cover/[width].jpg': part(),
	'/d/[slug]/cover/[width].webp': part(),
	'/d/[slug]/text': part(),
	'/d/[slug]/text/plain': part(),
	'/d/[slug]/file': part(),
	'/d/[slug]/knock': page('everyone', { tried: true }),
	'/d/[slug]/leaf/[page].json': part(),
	'/d/[slug]/leaf/[page].webp': part(),
	'/d/[slug]/read': part(),
	'/d/[slug]/read/found': part(),
	'/d/[slug]/read/told': page('everyone', { answers: 'problem', silent: true, byPass: true }),
	'/d/[slug]/turned-away': part(),
	'/find': page('everyone', { tried: true }),
	'/privacy': page('everyone', { same: true }),
	'/embed/[slug]': page('everyone', { tried: true, byPass: true }),
	'/embed/[slug]/pass': page('everyone', { answers: 'problem', silent: true, fromElsewhere: true }),
	'/documents.atom': page('everyone', { answers: 'problem' }),
	'/documents.json': page('everyone', { answers: 'problem' }),
	'/oembed': page('everyone', { answers: 'problem' }),
	'/picture/[name]': page('everyone', { answers: 'problem' }),
	'/llms.txt': page('everyone', { answers: 'problem', same: true }),
	'/robots.txt': page('everyone', { answers: 'problem', same: true }),
	'/sitemap.xml': page('everyone', { answers: 'problem', same: true }),
	'/.well-known/security.txt': page('everyone', { answers: 'problem' }),
	'/healthz': page('everyone', { answers: 'problem', beforeBegin: true, withoutDatabase: true }),
	'/metrics': page('near', { answers: 'problem', looks: ['readership:read'], beforeBegin: true }),
	'/readyz': page('everyone', { answers: 'problem', beforeBegin: true, withoutDatabase: true }),

	// signing in, and what is one's own
	'/begin': page('everyone', { english: true, beforeBegin: true }),
	'/invite/[token]': page('everyone', { secret: true }),
	'/k/[token]': page('everyone', { secret: true }),
	'/sign-in': page('everyone'),
	'/sign-in/code': page('everyone'),
	'/sign-in/forgotten': page('everyone'),
	'/sign-in/link': page('everyone', { secret: true }),
	'/sign-in/with/[provider]': page('everyone', { answers: 'problem' }),
	'/sign-in/with/[provider]/out': page('everyone', { answers: 'problem' }),
	'/sign-in/new-password': page('everyone', { secret: true }),
	'/api/auth/[...call]': page('everyone', { answers: 'problem', beforeBegin: true }),
	'/me': page('member', { again: ['about', 'every', 'document', 'folder'] }),
	'/me/account': page('member'),
	'/me/news/[token]/feed.atom': page('everyone', { answers: 'problem', secret: true }),
	'/me/news/end/[token]': page('everyone', { secret: true }),
	'/me/record.json': page('member', { answers: 'problem' }),
	'/postbox': page('near', { english: true }),

	// the desk
	'/desk': desk(),
	'/desk/documents': desk(),
	'/desk/find': desk({ answers: 'problem' }),
	'/desk/help': desk(),
	'/desk/help/[topic]': desk(),
	'/desk/documents.zip': desk({ answers: 'problem' }),
	'/desk/documents/[slug]': desk(),
	'/desk/documents/[slug]/compare': desk(),
	'/desk/pages': desk(),
	'/desk/pages/[id]': desk(),
	'/desk/pages/[id]/preview': desk(),
	'/desk/pages/[id]/qr.[kind]': desk(),
	'/desk/pages/[id]/revisions': desk(),
	'/desk/people': desk(),
	'/desk/people/import': desk(),
	'/desk/people/keys': desk(),
	'/desk/people/knocks': desk(),
	'/desk/people/members.csv': desk(),
	'/desk/people/staff': desk({ changes: 'owner' }),
	'/desk/readership': desk(),
	'/desk/readership/[slug]': desk(),
	'/desk/readership/by/key/[id]': desk(),
	'/desk/readership/by/member/[id]': desk(),
	'/desk/readership/by/minute': desk(),
	'/desk/readership/by/place': desk(),
	'/desk/readership/by/refusal': desk(),
	'/desk/settings': desk(),
	'/desk/settings/everything.zip': desk({ admits: 'owner', answers: 'problem' }),
	'/desk/try': desk(),
	'/desk/upkeep': desk(),
	'/desk/upkeep/copies': desk({ takesFiles: true }),
	'/desk/upkeep/messages': desk({ admits: 'owner' }),
	'/desk/upkeep/former': desk(),
	'/desk/upkeep/trail': desk(),
	'/desk/upkeep/trail.csv': desk(),

	// the JSON API
	'/api/[...rest]': page('everyone', { answers: 'problem', beforeBegin: true }),
	'/api/docs': page('everyone', { english: true, beforeBegin: true }),
	'/api/docs/embedding': page('everyone', { english: true }),
	'/api/docs/problems': page('everyone', { english: true, beforeBegin: true }),
	'/api/v1/openapi.json': page('everyone', { answers: 'problem', beforeBegin: true }),
	'/api/v1/find': page('everyone', { answers: 'problem', beforeBegin: true, looks: ['documents:read'] }),
	'/api/v1/bulk': api(...documents),
	'/api/v1/bulk/undo': api(...documents),
	'/api/v1/documents': api(...documents, { folders: 'handler', takesFiles: true }),
	'/api/v1/documents/[slug]': oneDocument(),
	'/api/v1/documents/[slug]/clean': oneDocument(),
	'/api/v1/documents/[slug]/cover': oneDocument({ takesFiles: true }),
	'/api/v1/documents/[slug]/decision': oneDocument(),
	'/api/v1/documents/[slug]/editions': oneDocument({ takesFiles: true }),
	'/api/v1/documents/[slug]/editions/compare': oneDocument(),
	// it changes pages, whichever document it begins with
	'/api/v1/documents/[slug]/exchange': api([], ['documents:read', 'pages:write']),
	'/api/v1/placements': api([], ['documents:read', 'pages:write']),
	'/api/v1/documents/[slug]/keys': oneDocument(),
	'/api/v1/documents/[slug]/keys/mail': oneDocument(),
	'/api/v1/documents/[slug]/ledger': api(...readership, [], { folders: 'document' }),
	'/api/v1/documents/[slug]/reach': oneDocument(),
	'/api/v1/documents/[slug]/remind': api([], ['documents:write', 'people:read']),
	'/api/v1/documents/[slug]/restore': oneDocument(),
	'/api/v1/documents/[slug]/source': oneDocument(),
	'/api/v1/documents/[slug]/unlock': oneDocument(),
	'/api/v1/filters': own(),
	'/api/v1/filters/[id]': own(),
	'/api/v1/folders': api(...documents),
	'/api/v1/topics': api(...documents),
	'/api/v1/from-web': api(...documents),
	'/api/v1/icons': api(...documents),
	'/api/v1/intake': api(...documents, { takesFiles: true }),
	'/api/v1/intake/[id]': api(...documents, { takesFiles: true }),
	'/api/v1/intake/known': api(...documents),
	'/api/v1/fields': api(...documents, { takesFiles: true }),
	'/api/v1/keys': api(...documents),
	'/api/v1/keys/bulk': api(...documents),
	'/api/v1/keys/bulk/undo': api(...documents),
	'/api/v1/keys/mail': api(...documents),
	'/api/v1/keys/[id]': api(...documents),
	'/api/v1/keys/[id]/restore': api(...documents),
	'/api/v1/knocks': api(...people),
	'/api/v1/knocks/[id]/answer': api([], ['people:write', 'documents:write']),
	'/api/v1/ledger': api(...readership),
	'/api/v1/groups': api(...people),
	'/api/v1/groups/[slug]': api(...people),
	'/api/v1/groups/[slug]/members': api(...people),
	'/api/v1/members': api(...people),
	'/api/v1/members/[id]': api(...people),
	'/api/v1/members/bulk': api(...people),
	'/api/v1/members/bulk/undo': api(...people),
	'/api/v1/members/[id]/invite': api(...people),
	'/api/v1/members/import': api(...people, { takesFiles: true }),
	'/api/v1/listing': api([], ['pages:read', 'documents:read']),
	'/api/v1/mismatches': api(['pages:read', 'documents:read'], ['pages:write', 'documents:write']),
	'/api/v1/navigation': api(...pages),
	'/api/v1/pages': api(...pages),
	'/api/v1/pages/[...path]': api(...pages),
	'/api/v1/pages/[...path]/publish': api(...pages),
	'/api/v1/pages/[...path]/restore': api(...pages),
	'/api/v1/pages/[...path]/revisions': api(...pages),
	'/api/v1/pictures': api([], ['pages:write'], { takesFiles: true }),
	'/api/v1/pictures/turn': api([], ['pages:write']),
	'/api/v1/readership/documents/[slug]': api(...readership, [], { folders: 'document' }),
	'/api/v1/readership/items': api(...readership),
	'/api/v1/readership/keys/[id]': api(['readership:read', 'documents:read']),
	'/api/v1/readership/live': api(...readership),
	'/api/v1/readership/members/[id]': api(['readership:read', 'people:read']),
	'/api/v1/readership/overview': api(...readership),
	'/api/v1/readership/places': api(...readership),
	'/api/v1/readership/subscription': own(),
	'/api/v1/readership/turned-away': api(...readership),
	'/api/v1/shelf': api(['pages:read', 'documents:read']),
	'/api/v1/site': api(['site:write'], ['site:write'], { changes: 'owner' }),
	'/api/v1/tokens': own(),
	'/api/v1/tokens/[id]': own(),
	'/api/v1/former-addresses': api(['documents:read'], ['documents:write']),
	'/api/v1/former-addresses/[id]': api(['documents:read'], ['documents:write']),
	'/api/v1/former-addresses/elsewhere': api([], ['documents:write']),
	'/api/v1/former-addresses/missed': api(['documents:read']),
	'/api/v1/webhooks': api(['site:write'], ['site:write'], { admits: 'owner' }),
	'/api/v1/webhooks/[id]': api(['site:write'], ['site:write'], { admits: 'owner' }),
	'/api/v1/webhooks/[id]/secret': api(['site:write'], ['site:write'], { admits: 'owner' }),
	'/api/v1/webhooks/[id]/messages': api(['site:write'], ['site:write'], { admits: 'owner' }),
	'/api/v1/webhooks/[id]/messages/[message]': api(['site:write'], ['site:write'], { admits: 'owner' }),
	'/api/v1/webhooks/[id]/test': api(['site:write'], ['site:write'], { admits: 'owner' }),
	'/api/v1/websites': api(['site:write'], ['site:write'], { admits: 'owner' }),
	'/api/v1/websites/[id]': api(['site:write'], ['site:write'], { admits: 'owner' }),
	'/api/v1/websites/[id]/keys': api(['site:write'], ['site:write'], { admits: 'owner' }),
	'/api/v1/websites/[id]/keys/[key]': api(['site:write'], ['site:write'], { admits: 'owner' })
};
