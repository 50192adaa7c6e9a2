// The guide of the API, as it is written: its calls are run by a shell one after the other. And a client that a general-purpose generator makes
// of the description (openapi-typescript, openapi-fetch) compiles and does the same work.
import { execFile } from 'node:child_process';
import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { origin, pdf, staff } from './help';

const run = promisify(execFile);
const dir = mkdtempSync(join(tmpdir(), 'ianua-guide-'));
let token = '';

beforeAll(async () => {
	const boss = await staff();
	const scopes = ['documents:read', 'documents:write', 'people:read', 'people:write', 'pages:read', 'pages:write', 'readership:read'];
	({ token } = await boss.api<{ token: string }>('POST', '/tokens', { label: 'Guide', scopes }));
});
afterAll(async () => {
	const boss = await staff();
	for (const path of ['/pages/%2Flocks', '/documents/lock-hours', '/groups/boat-club']) await boss.send('DELETE', `/api/v1${path}`);
	rmSync(dir, { recursive: true });
});

describe('the guide', () => {
	const guide = readFileSync('src/lib/server/http/guide.md', 'utf8');
	const [{ block: ask } = { block: '' }, ...calls] = [...guide.matchAll(/```sh\n([^]*?)```/g)].map((m) => ({ block: m[1]! }));

	it('has ten calls, and each does what is said of it', async () => {
		expect(calls.length).toBe(10);
		for (const name of ['lock-hours', 'lock-hours-2']) writeFileSync(join(dir, `${name}.pdf`), await pdf(`Lock hours ${name}`, 2));
		const outputs: string[] = [];
		for (const { block } of calls) {
			const { stdout } = await run('bash', ['-euo', 'pipefail', '-c', `${ask}\n${block}`], {
				cwd: dir,
				env: { PATH: process.env.PATH, IANUA: origin, TOKEN: token },
				maxBuffer: 20_000_000
			});
			outputs.push(stdout);
		}
		const [made, looked, group, person, door, decision, page, key, edition, ledger] = outputs.map((text) => text.trim());
		const read = (text: string | undefined) => JSON.parse(text ?? '') as Record<string, unknown>;
		expect(read(made)).toMatchObject({ slug: 'lock-hours', folder: 'Notices', condition: { status: 'sound' } });
		expect(read(looked)).toEqual({ slug: 'lock-hours', pages: 2, condition: { status: 'sound', findings: [] } });
		expect(read(group)).toMatchObject({ slug: 'boat-club' });
		expect(read(person)).toMatchObject({ email: 'ada.kelp@example.org', memberships: [{ group: 'boat-club', until: '2027-12-31' }] });
		expect(read(door)).toMatchObject({ door: { position: 'keyed', groups: ['boat-club'] } });
		expect(read(decision)).toMatchObject({ allowed: true });
		expect(page).toContain('"published":true');
		expect((read(key) as { url: string }).url).toMatch(/\/k\/[\w-]+$/);
		expect(read(edition)).toMatchObject({ slug: 'lock-hours', editions: [{}, {}] });
		const [entries, ...table] = ledger!.split('\n');
		expect(Array.isArray(read(entries).items)).toBe(true);
		expect(table.length).toBeGreaterThan(0);
	});
});

describe('a client made of the description', () => {
	it('compiles, and makes thirty calls and more', async () => {
		// beside the packages that it needs
		const folder = mkdtempSync('.client-');
		try {
			const description = join(folder, 'openapi.json');
			writeFileSync(description, await (await fetch(`${origin}/api/v1/openapi.json`)).text());
			await run('node', ['node_modules/openapi-typescript/bin/cli.js', description, '--output', join(folder, 'api.d.ts')]);
			for (const name of ['program.ts', 'tsconfig.json']) copyFileSync(join('docs/client', name), join(folder, name));
			const { stdout: faults } = await run('node', ['node_modules/typescript/bin/tsc', '-p', folder]).catch((error: unknown) => error as { stdout: string });
			expect(faults).toBe('');
			const file = join(dir, 'program.pdf');
			writeFileSync(file, await pdf('By a program', 2));
			const { stdout } = await run('node', ['--import', 'tsx', join(folder, 'program.ts')], {
				env: { PATH: process.env.PATH, IANUA: origin, TOKEN: token, FILE: file }
			});
			expect((JSON.parse(stdout) as { calls: number }).calls).toBeGreaterThanOrEqual(30);
		} finally {
			rmSync(folder, { recursive: true });
		}
	});
});
