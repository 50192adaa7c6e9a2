// What server tests share: people, small PDFs of their own, and calls to the running application.
import { inject } from 'vitest';
import PDFDocument from 'pdfkit';

export const origin = inject('origin');
// before anything of the server is imported: it reads its settings from here
Object.assign(process.env, inject('environment'));

const { addGroup, addPerson, hasOwner, makeFirstOwner } = await import('#server/people/service');
const { IanuaError } = await import('#core/errors');
const { slugOf } = await import('#core/documents/address');

export const zone = 'Europe/London';
const password = 'a-password-for-tests';

/** A browser's string: node's own would be taken for a robot. */
export const browserAgent = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';

/** A PDF with so many pages of A4; `text` makes its bytes its own. */
export function pdf(text: string, pages = 1, options: PDFKit.PDFDocumentOptions = {}): Promise<Buffer> {
	const made = new PDFDocument({ size: 'A4', ...options });
	const chunks: Buffer[] = [];
	made.on('data', (chunk: Buffer) => chunks.push(chunk));
	for (let n = 1; n <= pages; n++) {
		if (n > 1) made.addPage();
		made.fontSize(24).text(`${text}, page ${n}`);
	}
	made.end();
	return new Promise((done) => made.on('end', () => done(Buffer.concat(chunks))));
}

export interface Client {
	readonly id: string;
	get(path: string, headers?: Record<string, string>): Promise<Response>;
	send(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Response>;
	/** JSON of an API call that must succeed. */
	api<T = Record<string, never>>(method: string, path: string, body?: unknown): Promise<T>;
}

function client(id: string, own: Record<string, string>): Client {
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
		send,
		get: (path, headers) => send('GET', path, undefined, headers),
		api: async <T>(method: string, path: string, body?: unknown) => {
			const response = await send(method, `/api/v1${path}`, body);
			const answer = (await response.json()) as T;
			if (!response.ok) throw new Error(`${method} ${path}: ${JSON.stringify(answer)}`);
			return answer;
		}
	};
}

/** A visitor, told apart by a reader cookie where one is given. */
export const visitor = (reader?: string) => client('', reader ? { cookie: `ianua_reader=${reader}` } : {});

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

let owner: Promise<Client> | undefined;
/** The site's owner, signed in. */
export function staff(): Promise<Client> {
	return (owner ??= (async () => {
		if (!(await hasOwner())) await makeFirstOwner({ name: 'Olive Owner', email: 'olive@example.org', password }, { name: 'Test society', zone });
		return signIn('olive@example.org');
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
	return { ...(await signIn(email, id)), email };
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
	facts: Record<string, unknown>;
	door: { position: string; groups: string[]; sentence: string; count: number; until: string | null; allow: { save: boolean; print: boolean } };
	placements: { page: string; form: string; press: string; published: boolean }[];
}

/** Sends a file to be brought in. */
export async function send(bytes: Uint8Array, name: string, fields: Record<string, string> = {}): Promise<Response> {
	const form = new FormData();
	for (const [field, value] of Object.entries(fields)) form.append(field, value);
	form.append('file', new Blob([new Uint8Array(bytes)]), name);
	return (await staff()).send('POST', '/api/v1/documents', form);
}

let documents = 0;
/** A document of its own with the door given. */
export async function document(door: Record<string, unknown> = {}, pages = 3): Promise<DocumentJson> {
	const name = `Paper ${++documents} of ${process.pid}`;
	const response = await send(await pdf(name, pages), `${name}.pdf`);
	if (response.status !== 201) throw new Error(await response.text());
	const made = (await response.json()) as DocumentJson;
	return Object.keys(door).length ? (await staff()).api<DocumentJson>('PATCH', `/documents/${made.slug}`, { door }) : made;
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
}

export const ledgerOf = async (slug: string) => (await (await staff()).api<{ items: Entry[] }>('GET', `/documents/${slug}/ledger`)).items;
