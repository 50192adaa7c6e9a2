// The development server: what is saved is what the next request runs, in the server and in its helpers, and nothing of the old stays open.
import { afterAll, beforeAll, expect, it } from 'vitest';
import { developCopy, type DevCopy } from '../../scripts/dev-copy';
import { pdf, until } from './help';
import { begin } from './own';

for (const name of ['IANUA_DATABASE_URL', 'IANUA_ORIGIN', 'IANUA_DATA', 'IANUA_PORT', 'IANUA_SECRET']) delete process.env[name];

let copy: DevCopy;
beforeAll(async () => {
	copy = await developCopy();
});
afterAll(() => copy.stop());

it('runs with the next request what was just saved, in the server and in its helpers, and leaves no connection behind', async () => {
	const { origin } = copy.running;
	const { cookie } = await begin(copy.running);
	const api = async <T>(path: string, body?: FormData): Promise<T> =>
		(await (await fetch(`${origin}/api/v1${path}`, { headers: { cookie }, ...(body ? { method: 'POST', body } : {}) })).json()) as T;
	const bring = async (words: string): Promise<string> => {
		const form = new FormData();
		form.append('file', new Blob([new Uint8Array(await pdf(words, 1))]), `${words}.pdf`);
		const { slug } = await api<{ slug: string }>('/documents', form);
		return until(async () => {
			const { condition } = await api<{ condition: { status: string } }>(`/documents/${slug}`);
			return condition.status === 'checking' ? null : condition.status;
		});
	};
	expect(await bring('Before')).toBe('sound');
	const before = await copy.connections();
	copy.edit('core/errors.ts', 'There is nothing here', 'There is nothing at all here');
	expect((await api<{ title: string }>('/documents/nowhere')).title).toContain('nothing at all here');
	// a helper that finds words nowhere: what is brought in now is looked at as a scan is
	copy.edit('src/lib/server/pdf/text.ts', /(export const hasWords = \(text: string\): boolean =>).*/, '$1 text === null;');
	expect(await bring('After')).toBe('look');
	expect(await copy.connections()).toBeLessThanOrEqual(before + 2);
});
