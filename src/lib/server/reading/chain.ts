// The way of every request for any part of a document: find → decide → record → deliver. Nothing else reads the store.
import { createHash } from 'node:crypto';
import { stat } from 'node:fs/promises';
import { decide, type Action, type RefusedCode } from '#core/access/decide';
import type { HeldKey } from '#core/access/key';
import { wholeNumber } from '#core/text/number';
import { IanuaError } from '#core/errors';
import { reaches } from '#core/people/scope';
import { coverMark, type Cover } from '#core/documents/cover';
import { asksForLittle } from '#core/readership/settings';
import { lookPicture, pagesToLook } from '#core/reading/look';
import { attachmentDisposition, disposition } from '#core/reading/disposition';
import { byteRange, contentRange, precondition, rangeHolds } from '#core/reading/range';
import { mostSought, pagesWith } from '../documents/pages-with';
import { known, pathOf } from '../store/store';
import { handLane, mostHanding } from '../lanes';
import { announcedFor } from '../access/announced';
import { heldKeys } from '../access/keys';
import { callerFor } from '../access/passes';
import { turnedAway, type AnnouncedAway } from '../access/turned-away';
import { placeOf } from '../people/attempts';
import { heldTo, instantOf, nobody, type Caller } from '../people/who';
import { attachmentPath } from '../pdf/attachments';
import { asJpeg, coverOf, coverPath, coverWidths, leafPicture, plainCover, type CoverWidth, type Made } from '../pdf/pictures';
import { leafTextPath } from '../pdf/leaf-text';
import { packedPath } from '../pdf/derivatives';
import { isPlacedAsCover } from '../placing/placed';
import { countDecision } from '../metrics';
import { settings } from '../settings';
import { languageOf } from '../site/language';
import { inEdition, resolve, resolveForReader, type Resolved } from './resolve';
import { browserOf } from './reader';
import { afterwards, evenly } from './afterwards';
import { stampFor } from './stamp';
import { readerOf, recordKeyUsed, recordPassed, recordPrinted, recordRead, recordRefused, recordShown, type RequestContext, type Attention } from './record';

/** A request, whichever server took it. */
export interface FileRequest {
	readonly requestId: string;
	readonly method: string;
	readonly slug: string;
	readonly query: URLSearchParams;
	readonly address: string;
	readonly header: (name: string) => string | null;
	/** Who asks, where the caller is known already. */
	readonly caller?: Caller;
}

/** What goes back. `file` is the part of a file to send, `content` all that there is of what lies in no file. */
export interface Answer {
	readonly status: number;
	readonly headers: Record<string, string>;
	readonly file?: { readonly path: string; readonly first: number; readonly length: number };
	readonly content?: Buffer;
	/** Told once the bytes have left, or will not leave. */
	readonly sent?: () => void;
}

/** Somebody let in: the document and who it was. */
export interface LetIn {
	readonly found: Resolved;
	/** Who asks, without the keys that they hold: a key is for its document and changes nothing else. */
	readonly caller: Caller;
	readonly asker: RequestContext;
	/** Whether they may do more with this document, by any way in which they are let in. */
	may(action: Action): boolean;
	/** Whether the file itself may leave to them, as it is; where it may not, pages are given as pictures. */
	mayHaveFile(): boolean;
}

/** A refusal on its way to whoever answers: the error, and the words of the turned-away page. */
export class TurnedAway extends IanuaError {
	readonly found: Resolved | null;
	readonly asker: RequestContext;
	constructor(
		code: RefusedCode | 'not-found',
		readonly page: AnnouncedAway,
		found: Resolved | null,
		asker: RequestContext
	) {
		super(code === 'shut' || code === 'set-aside' ? 'not-found' : code);
		this.found = found;
		this.asker = asker;
		this.reason = code;
	}
	readonly reason: RefusedCode | 'not-found';
}

async function askerOf(ask: FileRequest): Promise<RequestContext> {
	const [known, browser] = await Promise.all([
		ask.caller ?? callerFor(ask.slug, ask.header('cookie'), ask.header('authorization')),
		browserOf(ask.header, ask.address)
	]);
	const caller = heldTo(known, ['documents:read']);
	return {
		requestId: ask.requestId,
		caller,
		address: ask.address,
		browser,
		agent: ask.header('user-agent') ?? '',
		cookie: ask.header('cookie'),
		key: null,
		from: ask.query.get('from'),
		referer: ask.header('referer'),
		purpose: ask.header('sec-purpose') ?? ask.header('purpose')
	};
}

/** Finds and decides. Gives whom is let in, or throws `TurnedAway`: what is hidden at an even moment. Records nothing. */
export async function letIn(ask: FileRequest, action: Action): Promise<LetIn> {
	const begun = performance.now();
	try {
		return await letInNow(ask, action);
	} catch (error) {
		if (error instanceof TurnedAway && error.code === 'not-found') await evenly(begun);
		throw error;
	}
}

/** As `letIn`, with the time it takes: for those who measure that. */
export async function letInNow(ask: FileRequest, action: Action): Promise<LetIn> {
	const known = await askerOf(ask);
	const isStaffs = known.caller.who.kind === 'staff' || known.caller.trial !== undefined;
	const found = await (isStaffs ? resolve(ask.slug) : resolveForReader(ask.slug));
	// a program that is bound to folders is nobody at a document outside them
	const outside = found !== null && known.caller.token !== undefined && !reaches(known.caller.token, found.folder);
	const asker = outside ? { ...known, caller: nobody } : known;
	if (!found) throw new TurnedAway('not-found', await turnedAway({ code: 'shut' }, null, await languageOf(ask.header)), null, asker);
	if (found.gone) throw new IanuaError('gone');
	const { who } = asker.caller;
	const { trial } = asker.caller;
	const keys =
		who.kind === 'staff' ? [] : trial ? (trial.key?.documentId === found.id ? [trial.key.held] : []) : await heldKeys(asker.cookie, found.id, readerOf(asker));
	const holder = who.kind === 'staff' ? who : { ...who, keys };
	const decideOn = (wanted: Action) => decide(holder, found.thing, wanted, instantOf(asker.caller));
	const { allowed, reasons } = decideOn(action);
	const [reason] = reasons;
	countDecision(action, reason.code, allowed);
	const withKey = { ...asker, key: reason.key ?? null };
	if (allowed) {
		const may = (wanted: Action) => decideOn(wanted).allowed;
		// what carries no name does not leave where copies carry names, to anybody but staff
		return { found, caller: asker.caller, asker: withKey, may, mayHaveFile: () => may('save') && (!found.stamped || who.kind === 'staff') };
	}
	const code = reason.code as RefusedCode;
	const language = await languageOf(ask.header);
	const kept = await announcedFor(found.thing, instantOf(asker.caller), language);
	const about = kept === null ? null : { title: found.title, description: found.description, who: kept };
	const page = await turnedAway({ ...reason, code }, found.turnedAway, language, about);
	throw new TurnedAway(code, page, found, withKey);
}

/** A key was presented at its address: that goes into the ledger. The document's door is asked when the document is. */
export async function presentKey(ask: FileRequest, key: HeldKey): Promise<void> {
	const [asker, found] = await Promise.all([askerOf(ask), resolve(ask.slug)]);
	if (found && asker.caller.who.kind !== 'staff') await recordKeyUsed(found, { ...asker, key: key.id });
}

/**
 * Enters a refusal in the ledger. What is hidden is entered once the answer has left: writing takes time, by which “shut” could be told
 * from “not there”.
 */
export async function recordTurnedAway(error: unknown, method: string): Promise<void> {
	if (!(error instanceof TurnedAway) || !error.found || method === 'HEAD') return;
	const { found, asker } = error;
	const reason = error.reason as RefusedCode;
	if (reason === 'shut' || reason === 'set-aside') afterwards(() => recordRefused(found, reason, asker));
	else await recordRefused(found, reason, asker);
}

/** As `letIn`, and a refusal goes into the ledger: for the addresses that a person opens. */
export async function letInOrRecord(ask: FileRequest, action: Action): Promise<LetIn> {
	try {
		return await letIn(ask, action);
	} catch (error) {
		await recordTurnedAway(error, ask.method);
		throw error;
	}
}

/** The refusal where a file would leave without the name that its copies carry. */
async function notAsItIs({ found, asker }: LetIn, ask: FileRequest): Promise<TurnedAway> {
	const code = 'save-not-allowed';
	return new TurnedAway(code, await turnedAway({ code }, found.turnedAway, await languageOf(ask.header)), found, asker);
}

/** `?e=<number>` asks for the edition that a reading began with. */
export async function inItsEdition(ask: FileRequest, entered: LetIn): Promise<LetIn> {
	const wanted = ask.query.has('e') ? wholeNumber(ask.query.get('e'), 0) : entered.found.edition.number;
	if (wanted < 1) throw new IanuaError('not-found');
	const found = await inEdition(entered.found, wanted, readerOf(entered.asker), entered.caller.who.kind === 'staff');
	if (!found) throw new IanuaError('not-found');
	return { ...entered, found };
}

/**
 * What caches may do. Every opening is decided and recorded here, so a kept copy may be shown only after asking again (304);
 * copies behind anything but an open door, and those that carry a name (`own`), stay out of shared caches.
 */
export function cacheHeaders(found: Resolved, own = false): Record<string, string> {
	const open = found.standing.position === 'open' && !own;
	return {
		'cache-control': `${open ? 'public' : 'private'}, no-cache`,
		vary: 'Cookie, Authorization',
		...(found.standing.indexable && !own ? {} : { 'x-robots-tag': 'noindex, nofollow, noarchive' })
	};
}

/** `/d/<slug>/file`: the PDF in place, or with `?save` as a copy to keep. */
export async function answerFile(ask: FileRequest): Promise<Answer> {
	const save = ask.query.has('save');
	// A file shown in place has left as surely as one saved: with saving off neither is given.
	const entered = await inItsEdition(ask, await letIn(ask, 'save'));
	const { found, asker } = entered;
	const { edition } = found;
	if (!save && !entered.mayHaveFile()) throw await notAsItIs(entered, ask);
	const stamped = save ? await stampFor(found, asker) : null;
	// The reading room asks for the copy packed for reading; a saved copy is the original, to the bit.
	const packed = !save && ask.query.get('for') === 'reading' && edition.packed ? await known(packedPath(edition.sha256)) : null;
	const path = stamped?.path ?? (packed ? packedPath(edition.sha256) : pathOf(edition.sha256));
	const bytes = packed?.bytes ?? (stamped ? (await stat(path)).size : edition.bytes);
	const etag = `"${edition.sha256}${packed ? '-reading' : stamped ? `-${stamped.number}` : ''}"`;
	const modified = edition.createdAt.getTime();
	const headers: Record<string, string> = {
		...cacheHeaders(found, stamped !== null),
		etag,
		'last-modified': edition.createdAt.toUTCString(),
		'accept-ranges': 'bytes'
	};
	const condition = precondition(
		{
			ifMatch: ask.header('if-match'),
			ifNoneMatch: ask.header('if-none-match'),
			ifModifiedSince: ask.header('if-modified-since'),
			ifUnmodifiedSince: ask.header('if-unmodified-since')
		},
		etag,
		modified
	);
	if (condition === 'not-modified') return { status: 304, headers };
	if (condition === 'failed') return { status: 412, headers };

	headers['content-type'] = 'application/pdf';
	// its page is what search engines are to show (RFC 6596)
	headers.link = `<${settings().IANUA_ORIGIN}/d/${found.slug}>; rel="canonical"`;
	headers['content-disposition'] = disposition(save ? 'attachment' : 'inline', edition.fileName);
	headers['x-content-type-options'] = 'nosniff';
	headers['content-security-policy'] = "default-src 'none'; style-src 'unsafe-inline'; object-src 'self'; frame-ancestors 'self'";
	// RFC 9110, 14.2: Range is defined for GET alone
	const wanted = ask.method === 'GET' && rangeHolds(ask.header('if-range'), etag, modified) ? byteRange(ask.header('range'), bytes) : 'whole';
	if (wanted === 'unsatisfiable') {
		const { 'content-disposition': _d, 'content-type': _t, ...rest } = headers;
		return { status: 416, headers: { ...rest, 'content-range': `bytes */${bytes}` } };
	}
	const [first, length] = wanted === 'whole' ? [0, bytes] : [wanted.first, wanted.last - wanted.first + 1];
	headers['content-length'] = String(length);
	if (wanted !== 'whole') headers['content-range'] = contentRange(wanted, bytes);
	const status = wanted === 'whole' ? 200 : 206;
	if (ask.method === 'HEAD') return { status, headers };

	await recordPassed(found, save ? 'saved' : 'opened', first > 0, asker, stamped?.number);
	return { status, headers, file: { path, first, length } };
}

/** `/d/<slug>/cover/<96|300|600|1200>.webp`, or `.jpg`. Seen by whoever may know of the document; a look, not an opening. */
export async function answerCover(ask: FileRequest, width: number, type: 'image/webp' | 'image/jpeg' = 'image/webp'): Promise<Answer> {
	const { found } = await letIn(ask, 'see');
	if (!coverWidths.includes(width as CoverWidth)) throw new IanuaError('not-found');
	const cover = ask.query.has('page') ? await placedCover(found, wholeNumber(ask.query.get('page'), 0)) : found.cover;
	const path = (await coverPath(coverOf(found.edition, cover), width as CoverWidth, placeOf(ask.address))) ?? (await plainCover(width as CoverWidth));
	const made = type === 'image/jpeg' ? { content: await asJpeg(path) } : { path };
	return picture(found, made, `cover-${width}-${coverMark(cover)}-${type}`, ask, type);
}

/** A page as a cover, where staff have placed it so: other pages are pictures of a reading, and entered as one. */
async function placedCover(found: Resolved, page: number): Promise<Cover> {
	if (!Number.isInteger(page) || page < 1 || page > found.edition.pages || !(await isPlacedAsCover(found.id, page))) throw new IanuaError('not-found');
	return { kind: 'page', page };
}

/**
 * `/d/<slug>/leaf/<n>.webp?w=<px>`: the picture of a page, for whoever may read. The first of a reading is its opening. With `for=look`, and
 * too small to be read, one of those that stand beside what is said of the document is no opening of it; none at all for staff, who see all of
 * them in a report.
 */
export async function answerLeaf(ask: FileRequest, page: number): Promise<Answer> {
	const { found, asker } = await inItsEdition(ask, await letIn(ask, 'read'));
	if (!Number.isInteger(page) || page < 1 || page > found.edition.pages) throw new IanuaError('not-found');
	const wish = ask.query.has('w') ? wholeNumber(ask.query.get('w'), 0) : 1200;
	if (wish < 1) throw new IanuaError('not-valid', { detail: '“w” is a width in px' });
	const answer = await picture(found, await leafPicture(found.edition.sha256, page, wish, placeOf(ask.address)), `leaf-${page}-${wish}`, ask);
	const stands = pagesToLook(found.edition.pages).includes(page) || asker.caller.who.kind === 'staff';
	const toLook = ask.query.get('for') === 'look' && wish <= lookPicture && stands;
	if (answer.status === 200 && ask.method !== 'HEAD' && !toLook) await recordPassed(found, 'opened', true, asker);
	return answer;
}

/** `/d/<slug>/leaf/<n>.json`: the words of a page and where they stand, for whoever may read. Belongs to the reading of its picture. */
export async function answerLeafText(ask: FileRequest, page: number): Promise<Answer> {
	const { found, asker } = await inItsEdition(ask, await letIn(ask, 'read'));
	if (!Number.isInteger(page) || page < 1 || page > found.edition.pages) throw new IanuaError('not-found');
	const path = await leafTextPath(found.edition.sha256, page, placeOf(ask.address));
	const answer = await picture(found, path === null ? null : { path }, `words-${page}-read`, ask, 'application/json');
	if (answer.status === 200 && ask.method !== 'HEAD') await recordPassed(found, 'opened', true, asker);
	return answer;
}

/**
 * `/d/<slug>/read/found?q=…`: the pages on which any of the words or phrases stand, for whoever may read. Belongs to the reading of its
 * pictures. Throws `not-valid` for more or longer ones than a find has.
 */
export async function foundOn(ask: FileRequest): Promise<number[]> {
	const { found, asker } = await inItsEdition(ask, await letIn(ask, 'read'));
	const sought = ask.query.getAll('q');
	if (sought.length > mostSought.all || sought.some((each) => each.length > mostSought.each))
		throw new IanuaError('not-valid', { detail: `“q” stands at most ${mostSought.all} times, each with at most ${mostSought.each} characters` });
	const pages = await pagesWith(found.edition.id, sought);
	await recordPassed(found, 'opened', true, asker);
	return pages;
}

/** `/d/<slug>/attachment/<n>`: a file that travels inside the document, counted from 1, for whoever may save. It stands in the ledger as saved. Throws `busy`. */
export async function answerAttachment(ask: FileRequest, number: number): Promise<Answer> {
	const leave = await handLane.enter(placeOf(ask.address));
	setTimeout(leave, mostHanding).unref();
	try {
		return { ...(await attachmentAnswer(ask, number)), sent: leave };
	} catch (error) {
		leave();
		throw error;
	}
}

async function attachmentAnswer(ask: FileRequest, number: number): Promise<Answer> {
	const entered = await inItsEdition(ask, await letIn(ask, 'save'));
	const { found, asker } = entered;
	// it stands in the copy that carries a name
	if (!entered.mayHaveFile()) throw await notAsItIs(entered, ask);
	if (!Number.isInteger(number) || number < 1) throw new IanuaError('not-found');
	const attachment = await attachmentPath(found.edition.sha256, number, placeOf(ask.address));
	if (!attachment) throw new IanuaError('not-found');
	const { size } = await stat(attachment.path);
	const headers: Record<string, string> = {
		...cacheHeaders(found),
		'content-type': 'application/octet-stream',
		'content-disposition': attachmentDisposition(attachment.name),
		'content-length': String(size),
		'x-content-type-options': 'nosniff',
		'content-security-policy': "default-src 'none'; sandbox"
	};
	if (ask.method === 'HEAD') return { status: 200, headers };
	await recordPassed(found, 'saved', false, asker);
	return { status: 200, headers, file: { path: attachment.path, first: 0, length: size } };
}

const actionOf = { read: 'read', printed: 'print', shown: 'see' } as const;

/** What is beacon: pages attended to, or given to a printer, or a placement come into view. Only whoever is let in can tell it. */
export async function recordBeacon(
	ask: FileRequest,
	beacon: { readonly kind: 'read'; readonly pages: Attention } | { readonly kind: 'printed' | 'shown' }
): Promise<void> {
	const { found, asker } = await inItsEdition(ask, await letIn(ask, actionOf[beacon.kind]));
	// which pages somebody looked at is not written down where they do not want to be followed
	if (beacon.kind === 'read' && asksForLittle({ gpc: ask.header('sec-gpc'), dnt: ask.header('dnt') })) return;
	if (beacon.kind !== 'read') return beacon.kind === 'printed' ? recordPrinted(found, asker) : recordShown(found, asker);
	const pages = beacon.pages.filter(({ page }) => page <= found.edition.pages);
	if (pages.length) await recordRead(found, pages, asker);
}

async function picture(found: Resolved, made: Made | null, name: string, ask: FileRequest, type = 'image/webp'): Promise<Answer> {
	if (!made) throw new IanuaError('not-found');
	const etag = `"${createHash('sha256').update(`${found.edition.sha256} ${name}`).digest('hex').slice(0, 32)}"`;
	const headers: Record<string, string> = { ...cacheHeaders(found), etag, 'x-content-type-options': 'nosniff' };
	if (precondition({ ifNoneMatch: ask.header('if-none-match') }, etag, 0) === 'not-modified') return { status: 304, headers };
	const size = 'path' in made ? (await stat(made.path)).size : made.content.length;
	headers['content-type'] = type;
	headers['content-length'] = String(size);
	if (ask.method === 'HEAD') return { status: 200, headers };
	return 'path' in made ? { status: 200, headers, file: { path: made.path, first: 0, length: size } } : { status: 200, headers, content: made.content };
}
