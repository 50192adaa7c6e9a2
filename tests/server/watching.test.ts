// What whoever watches the servers is told: /metrics in the form of OpenMetrics 1.0, the lines of the log, and ids that lead over several programs
// (W3C Trace Context, level 1).
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { freePort } from '#server/db/cluster';
import { startMailbox } from '../../standins/mailbox';
import { scratch } from '../../scripts/scratch';
import { browserAgent, document, member, origin, pdf, send, staff, until } from './help';
import { begin, startOwn } from './own';
import { newTrace, traceOf } from '#server/trace';

/** The samples of an exposition by name and labels, taken apart as the standard lays it out (section “Text Format”). */
function samplesOf(text: string): Map<string, number> {
	const samples = new Map<string, number>();
	for (const line of text.split('\n')) {
		if (line === '' || line.startsWith('#')) continue;
		const match = /^([a-zA-Z_:][\w:]*(?:\{(?:[a-zA-Z_]\w*="(?:[^"\\\n]|\\["\\n])*",?)*\})?) (\S+)(?: \S+)?$/.exec(line);
		if (!match) throw new Error(`not a line of OpenMetrics: ${line}`);
		expect(samples.has(match[1]!), line).toBe(false);
		samples.set(match[1]!, Number(match[2]));
	}
	return samples;
}
const metrics = async () => samplesOf(await (await fetch(`${origin}/metrics`)).text());
const sum = (samples: Map<string, number>, name: string, ...parts: string[]) =>
	[...samples].filter(([key]) => key.startsWith(name) && parts.every((part) => key.includes(part))).reduce((all, [, value]) => all + value, 0);

describe('/metrics', () => {
	it('is OpenMetrics, whole, and names no reader, address or document', async () => {
		const paper = await document({ position: 'open' });
		await (await fetch(`${origin}/d/${paper.slug}/file`)).arrayBuffer();
		const response = await fetch(`${origin}/metrics`);
		expect([response.status, response.headers.get('content-type')]).toEqual([
			200,
			expect.stringMatching(/^application\/openmetrics-text; version=1\.0\.0; charset=utf-8/)
		]);
		const text = await response.text();
		expect(text.endsWith('# EOF\n')).toBe(true);
		expect(samplesOf(text).size).toBeGreaterThan(50);
		expect(text).not.toContain(paper.slug);
		expect(text).not.toMatch(/127\.0\.0\.1|@example/);
		// every counter's samples end with _total (section “Counter”)
		for (const [, name] of text.matchAll(/^# TYPE (\S+) counter$/gm))
			for (const [line] of text.matchAll(new RegExp(`^${name!}(?![\\w]*_total|_created).*$`, 'gm'))) throw new Error(line);
	});
	it('counts requests by route, decisions, refused sign-ins and jobs', async () => {
		const paper = await document({ position: 'keyed' });
		const before = await metrics();
		expect((await fetch(`${origin}/d/${paper.slug}/file`)).status).toBe(401);
		await (await fetch(`${origin}/d/${paper.slug}/file`, { headers: (await staff()).headers })).arrayBuffer();
		await fetch(`${origin}/api/auth/sign-in/email`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ email: 'nobody-here@example.org', password: 'not the password' })
		});
		expect((await send(await pdf('Counted', 2), 'counted.pdf')).status).toBe(201);
		const grown = async (name: string, ...parts: string[]) => sum(await metrics(), name, ...parts) - sum(before, name, ...parts);
		expect(await grown('ianua_request_seconds_count', 'route="/d/[slug]/file"', 'status="200"')).toBe(1);
		expect(await grown('ianua_request_seconds_count', 'route="/d/[slug]/file"', 'status="401"')).toBe(1);
		expect(await grown('ianua_decisions_total', 'reason="sign-in"', 'allowed="no"')).toBeGreaterThanOrEqual(1);
		expect(await grown('ianua_decisions_total', 'reason="staff"', 'allowed="yes"')).toBeGreaterThanOrEqual(1);
		expect(await grown('ianua_sign_ins_refused_total')).toBe(1);
		await until(async () => (await grown('ianua_job_seconds_count', 'queue="check"', 'done="yes"')) >= 1);
		const now = await metrics();
		for (const name of ['ianua_ledger_waiting', 'ianua_sums_behind_seconds', 'ianua_database_bytes', 'ianua_files_free_bytes', 'ianua_webhooks_waiting'])
			expect([name, now.has(name)]).toEqual([name, true]);
		expect(now.get('ianua_database_bytes')).toBeGreaterThan(1_000_000);
	});
	it('is for the machine itself, staff and a token that may see readership; nothing to all others', async () => {
		const ask = async (headers: Record<string, string>) => (await fetch(`${origin}/metrics`, { headers })).status;
		// a proxy on this machine hands on what comes from anywhere
		expect(await ask({ 'x-forwarded-for': '198.51.100.7' })).toBe(404);
		expect(await ask({ 'x-forwarded-for': '198.51.100.7', ...(await member()).headers })).toBe(404);
		const boss = await staff();
		const token = async (scope: string) => (await boss.api<{ token: string }>('POST', '/tokens', { label: `Watches ${scope}`, scopes: [scope] })).token;
		const far = { 'x-forwarded-for': '198.51.100.7' };
		expect(await ask({ ...far, authorization: `Bearer ${await token('readership:read')}` })).toBe(200);
		expect(await ask({ ...far, authorization: `Bearer ${await token('pages:read')}` })).toBe(403);
		expect(await ask({ ...far, ...boss.headers })).toBe(200);
	});
});

describe('a trace', () => {
	const id = '4bf92f3577b34da6a3ce929d0e0e4736';
	it('is taken where it can be read (section 3.2: the examples there)', () => {
		expect(traceOf(`00-${id}-00f067aa0ba902b7-01`)).toBe(id);
		expect(traceOf(`01-${id}-00f067aa0ba902b7-00-what-the-future-will-be-like`)).toBe(id);
		for (const wrong of [
			null,
			'',
			`ff-${id}-00f067aa0ba902b7-01`,
			`00-${'0'.repeat(32)}-00f067aa0ba902b7-01`,
			`00-${id}-0000000000000000-01`,
			`00-${id.toUpperCase()}-00f067aa0ba902b7-01`
		])
			expect(traceOf(wrong)).toBeUndefined();
	});
	it('of a request of our own has the form, with our id as its own', () => {
		const made = newTrace('0196d2a4-7a10-7000-8000-00000000f00d');
		expect(made).toMatch(/^00-0196d2a47a107000800000000000f00d-[0-9a-f]{16}-01$/);
		expect(traceOf(made)).toBe('0196d2a47a107000800000000000f00d');
	});
});

describe('the log', () => {
	it('has a line at the start, for a request with its trace, for a job, and at the end', async () => {
		const { path: data, drop } = scratch('log');
		let text = '';
		const own = await startOwn({ data, log: 'info', output: (chunk) => (text += chunk) });
		try {
			const boss = await begin(own);
			const form = new FormData();
			form.append('file', new Blob([new Uint8Array(await pdf('In the log', 1))]), 'log.pdf');
			const trace = '4bf92f3577b34da6a3ce929d0e0e4736';
			const made = await fetch(`${own.origin}/api/v1/documents`, {
				method: 'POST',
				headers: { ...boss, traceparent: `00-${trace}-00f067aa0ba902b7-01` },
				body: form
			});
			await until(() => Promise.resolve(text.includes('"msg":"job"')));
			// a request leads to its entry, and one that goes on to none
			const { slug } = (await made.json()) as { slug: string };
			await fetch(`${own.origin}/api/v1/documents/${slug}`, {
				method: 'PATCH',
				headers: { ...boss, origin: own.origin, 'content-type': 'application/json' },
				body: JSON.stringify({ door: { position: 'open' } })
			});
			const agent = { 'user-agent': browserAgent };
			const opened = await fetch(`${own.origin}/d/${slug}/file`, { headers: agent });
			const goesOn = await fetch(`${own.origin}/d/${slug}/file`, { headers: { ...agent, range: 'bytes=100-200' } });
			expect([opened.status, goesOn.status]).toEqual([200, 206]);
			const { items } = (await (await fetch(`${own.origin}/api/v1/documents/${slug}/ledger`, { headers: boss })).json()) as { items: { id: string }[] };
			await own.stop();
			const lines = text.split('\n').filter((line) => line.startsWith('{')).map((line) => JSON.parse(line) as Record<string, unknown>); // prettier-ignore
			const one = (msg: string, more: Record<string, unknown> = {}) =>
				lines.find((line) => line.msg === msg && Object.entries(more).every(([k, v]) => line[k] === v));
			expect(one('started')).toMatchObject({
				program: 'web',
				origin: own.origin,
				store: expect.stringContaining('files') as string,
				version: expect.stringMatching(/^\d/) as string
			});
			expect(JSON.stringify(one('started'))).not.toMatch(/postgres:\/\/|:[^"/]*@/);
			expect(one('request', { trace })).toMatchObject({ requestId: made.headers.get('x-request-id'), route: '/api/v1/documents', status: 201 });
			expect(lines.filter((line) => line.msg === 'entry').map(({ requestId, entry, kind }) => ({ requestId, entry, kind }))).toEqual([
				{ requestId: opened.headers.get('x-request-id'), entry: items[0]!.id, kind: 'opened' }
			]);
			expect(goesOn.headers.get('x-request-id')).toMatch(/^[0-9a-f-]{36}$/);
			expect(one('job', { queue: 'check' })).toMatchObject({ job: expect.any(String) as string, ms: expect.any(Number) as number });
			expect([one('stopping')?.signal, one('stopped')?.program]).toEqual(['SIGTERM', 'web']);
		} finally {
			await own.stop().catch(() => {});
			drop();
		}
	});
});

describe('mail', () => {
	it('that does not go out is told to owners at upkeep, until it does again', async () => {
		const { path, drop } = scratch('mail');
		const port = await freePort();
		const own = await startOwn({ data: path, given: { IANUA_SMTP_URL: `smtp://127.0.0.1:${port}` } });
		try {
			const boss = await begin(own);
			const invite = async (email: string) => {
				const made = await fetch(`${own.origin}/api/v1/members`, {
					method: 'POST',
					headers: { ...boss, origin: own.origin, 'content-type': 'application/json' },
					body: JSON.stringify({ name: 'Somebody', email, invite: true })
				});
				expect(made.status).toBe(201);
			};
			const upkeep = async () => (await fetch(`${own.origin}/desk/upkeep`, { headers: { ...boss, accept: 'text/html' } })).text();
			expect(await upkeep()).not.toContain('Mail does not go out');
			await invite('one@example.org');
			expect(await upkeep()).toMatch(/Mail does not go out since [\d: -]+ UTC: .*ECONNREFUSED/);
			const mailbox = await startMailbox(join(path, 'mail'), port);
			try {
				await invite('two@example.org');
				expect(await upkeep()).not.toContain('Mail does not go out');
			} finally {
				mailbox.stop();
			}
		} finally {
			await own.stop();
			drop();
		}
	});
});
