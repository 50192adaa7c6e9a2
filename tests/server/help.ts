// What server tests share: people, small PDFs of their own, and calls to the running application.
import { execFile } from 'node:child_process';
import { createHmac, randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { TSchema } from '@sinclair/typebox';
import { Ajv, type ValidateFunction } from 'ajv';
import formatsPlugin from 'ajv-formats';
import PDFDocument from 'pdfkit';
import { given } from './given';

export const origin = given.origin;

const { addGroup, addPerson, hasOwner, makeFirstOwner } = await import('#server/people/directory');
const { IanuaError } = await import('#core/errors');
const { slugOf } = await import('#core/documents/address');
const { db } = await import('#server/db/client');
const { session } = await import('#server/db/schema');
const { newId } = await import('#server/id');
const { settings } = await import('#server/settings');
const { operations } = await import('#server/http/operations');

export const zone = 'Europe/London';
const password = 'a-password-for-tests';

/** A browser's string: node's own would be taken for a robot. */
export const browserAgent = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';

/** A PDF with so many pages of A4, or a page for each text; `text` makes its bytes its own. */
export function pdf(
	text: string | readonly string[],
	pages = typeof text === 'string' ? 1 : text.length,
	options: PDFKit.PDFDocumentOptions = {}
): Promise<Buffer> {
	const made = new PDFDocument({ size: 'A4', ...options });
	const chunks: Buffer[] = [];
	made.on('data', (chunk: Buffer) => chunks.push(chunk));
	for (let n = 1; n <= pages; n++) {
		if (n > 1) made.addPage();
		made.fontSize(24).text(`${typeof text === 'string' ? text : text[n - 1]}, page ${n}`);
	}
	made.end();
	return new Promise((done) => made.on('end', () => done(Buffer.concat(chunks))));
}

const ajv = new Ajv({ strict: false });
(formatsPlugin as unknown as (ajv: Ajv) => void)(ajv);
const described = operations.map((o) => ({
	...o,
	address: new RegExp(
		`^${o.path
			.replaceAll('.', '\\.')
			.replace('{path}', '[^?]+')
			.replace(/\{\w+\}/g, '[^/?]+')}(\\?|$)`
	)
}));
/** Checks of answers, each made when it is first needed: most files need few of them. */
const checks = new Map<TSchema, ValidateFunction>();
function checkOf(answer: TSchema): ValidateFunction {
	const check = checks.get(answer) ?? ajv.compile(answer);
	checks.set(answer, check);
	return check;
}

/** What an operation answers is what the API's description says of it. */
function holdAgainst(method: string, path: string, status: number, answer: unknown): void {
	const known = described.filter((o) => o.method === method.toLowerCase() && o.address.test(path));
	// the more literal of two: /intake/known is no /intake/{id}
	const operation = known.sort((a, b) => a.path.split('{').length - b.path.split('{').length || b.path.length - a.path.length)[0];
	if (!operation) throw new Error(`${method} ${path} is not described`);
	if (status !== operation.status) throw new Error(`${method} ${path} answers ${status}, not ${operation.status}`);
	const valid = operation.answer && checkOf(operation.answer);
	if (valid && !valid(answer))
		throw new Error(`${method} ${path} is not as described: ${ajv.errorsText(valid.errors)} ${JSON.stringify(valid.errors?.map((e) => e.params))}`);
}

export interface Client {
	readonly id: string;
	/** What it sends with every request. */
	readonly headers: Record<string, string>;
	get(path: string, headers?: Record<string, string>): Promise<Response>;
	send(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Response>;
	/** JSON of an API call that must succeed. */
	api<T = Record<string, never>>(method: string, path: string, body?: unknown): Promise<T>;
}

export function client(id: string, own: Record<string, string>): Client {
	const base = { 'user-agent': browserAgent, ...own };
	const send = (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) =>
		fetch(origin + path, {
			method,
			redirect: 'manual',
			headers: { ...base, ...(body === undefined || body instanceof FormData ? {} : { 'content-type': 'application/json' }), ...headers },
			body: body === undefined ? undefined : body instanceof FormData ? body : JSON.stringify(body)
		});
	return {
		id,
		headers: base,
		send,
		get: (path, headers) => send('GET', path, undefined, headers),
		api: async <T>(method: string, path: string, body?: unknown) => {
			const response = await send(method, `/api/v1${path}`, body);
			const answer = (await response.json()) as T;
			if (!response.ok) throw new Error(`${method} ${path}: ${JSON.stringify(answer)}`);
			holdAgainst(method, path, response.status, answer);
			return answer;
		}
	};
}

/** Tries of every kind are counted by the address they come from, and all tests have the same one: what other files did shall not count. */
export async function forgetTries(): Promise<void> {
	const { sql } = await import('#server/db/client');
	await sql()`delete from attempt`;
}

/**
 * Sets the readings of a document back by an interval, as if time had passed. What the application remembers of them goes with whatever is changed
 * through it, so that nothing depends on how soon it hears of this.
 */
export async function setBack(document: string, by: string): Promise<void> {
	const { sql } = await import('#server/db/client');
	await sql()`update reading set last_at = last_at - ${by}::interval where document_id = ${document}`;
	await (await staff()).api('POST', '/bulk/undo', { undo: [] });
}

/** A visitor, told apart by a reader cookie where one is given. */
export const visitor = (reader?: string) => client('', reader ? { cookie: `ianua_reader=${reader}` } : {});

/** Signs in as a browser does. From one place that can be done only so often in a minute: most tests begin with `signedIn`. */
export async function signIn(email: string, id = ''): Promise<Client> {
	const response = await fetch(`${origin}/api/auth/sign-in/email`, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ email, password })
	});
	if (!response.ok) throw new Error(`sign-in: ${response.status} ${await response.text()}`);
	return client(id, {
		cookie: response.headers
			.getSetCookie()
			.map((c) => c.split(';')[0])
			.join('; ')
	});
}

/** Somebody with a session, as if they had signed in. */
async function signedIn(id: string): Promise<Client> {
	const token = randomBytes(24).toString('hex');
	const now = new Date();
	await db()
		.insert(session)
		.values({ id: newId(), token, userId: id, expiresAt: new Date(now.getTime() + 86_400_000), createdAt: now, updatedAt: now, userAgent: browserAgent });
	const signature = createHmac('sha256', settings().IANUA_SECRET).update(token).digest('base64');
	return client(id, { cookie: `ianua.session_token=${encodeURIComponent(`${token}.${signature}`)}` });
}

let owner: Promise<Client> | undefined;
/** The site's owner, signed in. */
export function staff(): Promise<Client> {
	return (owner ??= (async () => {
		if (!(await hasOwner())) await makeFirstOwner({ name: 'Olive Owner', email: 'olive@example.org', password }, { name: 'Test society', zone });
		const boss = await signIn('olive@example.org');
		// through the application, which then knows it at once: visitors are told apart by the cookie that tests give them
		await boss.api('PATCH', '/site', { readership: { nameless: 'cookie' } });
		return boss;
	})());
}

let people = 0;
/** A new member of groups (made where missing), signed in. */
export async function member(...memberships: { group: string; from?: string; until?: string }[]): Promise<Client & { email: string }> {
	await staff();
	for (const { group } of memberships) {
		await addGroup(group, null).catch((error: unknown) => {
			if (!(error instanceof IanuaError)) throw error;
		});
	}
	const email = `member-${++people}-${process.pid}@example.org`;
	const id = await addPerson(
		{ name: `Member ${people}`, email, password, role: 'member', memberships: memberships.map((m) => ({ ...m, group: slugOf(m.group) })) },
		null
	);
	return { ...(await signedIn(id)), email };
}

export interface DocumentJson {
	id: string;
	slug: string;
	title: string;
	sha256: string;
	bytes: number;
	pages: number;
	fileName: string;
	condition: { status: string; findings: { code: string; text: string }[] };
	description: string;
	folder: string;
	topics: string[];
	language: string | null;
	addresses: string[];
	setAsideAt: string | null;
	source: { state: string; watch: boolean; note: string } | null;
	editions: { number: number; sha256: string; pages: number; origin: string; condition: string; inForce: boolean }[];
	facts: Record<string, unknown>;
	door: { position: string; groups: string[]; sentence: string; count: number; until: string | null; allow: { save: boolean; print: boolean } };
	placements: { page: string; form: string; press: string; published: boolean }[];
}

/** Sends a file to be brought in. */
export async function send(bytes: Uint8Array, name: string, fields: Record<string, string> = {}, who = staff()): Promise<Response> {
	const form = new FormData();
	for (const [field, value] of Object.entries(fields)) form.append(field, value);
	form.append('file', new Blob([new Uint8Array(bytes)]), name);
	return (await who).send('POST', '/api/v1/documents', form);
}

/** A document of its own with the door given. */
export async function document(door: Record<string, unknown> = {}, pages = 3): Promise<DocumentJson> {
	const name = `Paper ${randomBytes(6).toString('hex')}`;
	const response = await send(await pdf(name, pages), `${name}.pdf`);
	if (response.status !== 201) throw new Error(await response.text());
	const made = (await response.json()) as DocumentJson;
	return Object.keys(door).length ? (await staff()).api<DocumentJson>('PATCH', `/documents/${made.slug}`, { door }) : made;
}

/** Brings in a second edition of a document, of three pages, and waits until it is in force. */
export async function secondEdition(slug: string): Promise<void> {
	const boss = await staff();
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(await pdf('another edition', 3))]), 'second.pdf');
	const response = await boss.send('POST', `/api/v1/documents/${slug}/editions`, form);
	if (response.status !== 201) throw new Error(await response.text());
	await until(async () => (await boss.api<DocumentJson>('GET', `/documents/${slug}`)).editions.some((edition) => edition.number === 2 && edition.inForce));
}

export interface Entry {
	kind: string;
	who: { kind: string; name?: string; email?: string };
	source: { kind: string; path?: string; placement?: string; site?: string };
	staff: boolean;
	robot: boolean;
	preload: boolean;
	double: boolean;
	reason: string | null;
	pages?: { page: number; seconds: number }[];
}

export const ledgerOf = async (slug: string) => (await (await staff()).api<{ items: Entry[] }>('GET', `/documents/${slug}/ledger`)).items;

/** Runs Debian's qpdf on bytes, without standing still meanwhile; `args` get the input's and the output's paths. */
export async function qpdf(bytes: Uint8Array, args: (input: string, output: string) => string[]): Promise<Buffer> {
	const dir = mkdtempSync(join(tmpdir(), 'ianua-qpdf-'));
	try {
		const [input, output] = [join(dir, 'in.pdf'), join(dir, 'out.pdf')];
		writeFileSync(input, bytes);
		await promisify(execFile)('qpdf', args(input, output));
		return readFileSync(output);
	} finally {
		rmSync(dir, { recursive: true });
	}
}

/** The same PDF locked with a password. */
export const lockedPdf = (bytes: Uint8Array, secret: string) => qpdf(bytes, (a, b) => ['--encrypt', secret, 'owner', '256', '--', a, b]);

/** A PDF of bare objects, written out as they are given: for odd and hostile ones. Object 1 is the catalog. */
export function rawPdf(objects: readonly string[]): Buffer {
	let text = '%PDF-1.7\n';
	const at: number[] = [];
	objects.forEach((object, i) => {
		at.push(text.length);
		text += `${i + 1} 0 obj\n${object}\nendobj\n`;
	});
	const start = text.length;
	text += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${at.map((n) => `${String(n).padStart(10, '0')} 00000 n \n`).join('')}`;
	return Buffer.from(`${text}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`, 'latin1');
}

/** Waits until `look` gives something, at most `ms`. */
export async function until<T>(look: () => Promise<T | null | undefined | false>, ms = 300_000): Promise<T> {
	const end = Date.now() + ms;
	for (;;) {
		const found = await look();
		if (found) return found;
		if (Date.now() > end) throw new Error('it did not come to pass in time');
		await new Promise((go) => setTimeout(go, 100));
	}
}
