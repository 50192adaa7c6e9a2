// Fills a site of an earlier release through its own addresses, and writes down what that release itself says of it: documents with their doors
// and files, the entries of the ledger, groups, members, keys, pages. What a release cannot do yet is left out.
// usage: tsx tests/releases/fill.ts <origin> <code of the first visit, or -> <file for the facts>
import { writeFileSync } from 'node:fs';
import PDFDocument from 'pdfkit';

const [origin = '', code = '-', out = ''] = process.argv.slice(2);
const browser = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';
const owner = { email: 'o@example.org', password: 'the-first-password' };

function pdf(words: string, pages: number): Promise<Buffer> {
	const document = new PDFDocument({ size: 'A4', info: { Title: words, CreationDate: new Date(0) } });
	const parts: Buffer[] = [];
	document.on('data', (part: Buffer) => parts.push(part));
	for (let page = 1; page <= pages; page++) {
		if (page > 1) document.addPage();
		document.fontSize(14).text(`${words}, page ${page}. The canal is closed at the lower lock.`);
	}
	document.end();
	return new Promise((done) => document.on('end', () => done(Buffer.concat(parts))));
}

await fetch(`${origin}/begin`, {
	method: 'POST',
	redirect: 'manual',
	headers: { 'content-type': 'application/x-www-form-urlencoded', accept: 'text/html', origin },
	body: new URLSearchParams({ ...(code === '-' ? {} : { code }), site: 'Kept society', zone: 'Europe/London', name: 'O', ...owner })
});
const signedIn = await fetch(`${origin}/api/auth/sign-in/email`, {
	method: 'POST',
	headers: { 'content-type': 'application/json', origin },
	body: JSON.stringify(owner)
});
if (!signedIn.ok) throw new Error(`Signing in answered ${signedIn.status}.`);
const cookie = signedIn.headers
	.getSetCookie()
	.map((c) => c.split(';')[0])
	.join('; ');

type Json = Record<string, unknown>;
/** What an address answers; null where this release has no such address or takes no such thing. */
async function api(method: string, path: string, body?: Json | FormData): Promise<Json | null> {
	const headers: Record<string, string> = { cookie, ...(body && !(body instanceof FormData) ? { 'content-type': 'application/json' } : {}) };
	const response = await fetch(`${origin}/api/v1${path}`, { method, headers, body: body instanceof FormData ? body : body && JSON.stringify(body) });
	if (!response.ok) {
		console.log(`${method} ${path}: ${response.status} ${(await response.text()).slice(0, 160)}`);
		return null;
	}
	return response.status === 204 ? {} : ((await response.json()) as Json);
}
const form = async (words: string, pages: number): Promise<FormData> => {
	const data = new FormData();
	data.append('file', new Blob([new Uint8Array(await pdf(words, pages))], { type: 'application/pdf' }), `${words}.pdf`);
	return data;
};
const sound = async (slug: string): Promise<void> => {
	for (let i = 0; i < 120; i++) {
		const document = (await api('GET', `/documents/${slug}`)) as { condition?: { status: string } } | null;
		if (document?.condition?.status !== 'checking') return;
		await new Promise((go) => setTimeout(go, 500));
	}
	throw new Error(`${slug} was not checked.`);
};

const slugs: Record<string, string> = {};
for (const [name, pages] of [
	['Open paper', 2],
	['Shut paper', 1],
	['Keyed paper', 3],
	['Laid aside', 1]
] as const) {
	const made = (await api('POST', '/documents', await form(name, pages)))!;
	slugs[name] = made.slug as string;
	await sound(slugs[name]);
}
const group = await api('POST', '/groups', { name: 'Lock wardens' });
await api('PATCH', `/documents/${slugs['Open paper']!}`, { door: { position: 'open' } });
await api('PATCH', `/documents/${slugs['Open paper']!}`, { folder: 'Papers', topics: ['locks'] });
await api('PATCH', `/documents/${slugs['Keyed paper']!}`, {
	door: { position: 'keyed', groups: group ? [group.slug as string] : [], allMembers: !group, allow: { save: false, print: true } }
});
await api('POST', '/members', { name: 'Wren Member', email: 'wren@example.org', memberships: [{ group: (group?.slug as string | undefined) ?? '' }] });
await api('POST', `/documents/${slugs['Keyed paper']!}/keys`, { label: 'County' });
if (await api('POST', `/documents/${slugs['Open paper']!}/editions`, await form('Open paper, second', 4))) await sound(slugs['Open paper']!);
await api('DELETE', `/documents/${slugs['Laid aside']!}`);
await api('POST', '/pages', {
	path: '/papers',
	title: 'Papers',
	layout: 'article',
	content: {
		type: 'doc',
		content: [
			{ type: 'paragraph', content: [{ type: 'text', text: 'What we keep.' }] },
			{ type: 'placement', attrs: { document: slugs['Open paper'], form: 'button', press: 'tab' } }
		]
	}
});
await api('PATCH', '/pages/papers', { door: { position: 'open' } });
await api('POST', '/pages/papers/publish', {});
for (const [path, reader] of [
	[`/d/${slugs['Open paper']!}/file`, 'one'],
	[`/d/${slugs['Open paper']!}/file`, 'two'],
	[`/d/${slugs['Open paper']!}/file?save`, 'three'],
	[`/d/${slugs['Keyed paper']!}/file`, 'four'],
	[`/d/${slugs['Shut paper']!}/file`, 'five']
] as const)
	await (
		await fetch(origin + path, { headers: { 'user-agent': `${browser} ${reader}`, cookie: `ianua_reader=${reader.padEnd(32, '0')}`, accept: 'text/html,*/*' } })
	).arrayBuffer();
// entries and sums are written a moment later
await new Promise((go) => setTimeout(go, 6000));

const facts: Json = {};
for (const slug of Object.values(slugs)) {
	const document = await api('GET', `/documents/${slug}`);
	const { items } = ((await api('GET', `/documents/${slug}/ledger`)) ?? { items: [] }) as { items: { kind: string }[] };
	const { title, pages, bytes, sha256, door } = (document ?? {}) as Record<string, never>;
	facts[slug] = { there: document !== null, title, pages, bytes, sha256, door, ledger: items.map((entry) => entry.kind).sort() };
}
const page = await fetch(`${origin}/papers`, { headers: { 'user-agent': browser } });
const listed = async (path: string, name: string) =>
	(((await api('GET', path)) ?? { items: [] }) as { items: Record<string, unknown>[] }).items.map((i) => i[name]);
writeFileSync(
	out,
	`${JSON.stringify({ documents: facts, groups: await listed('/groups', 'name'), members: await listed('/members', 'email'), page: page.status }, null, '\t')}\n`
);
