// A running Ianua with the demo, used as staff and members use it.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Somebody of the demo: their password stands in the data folder. */
export const someoneOf = (data: string, who: 'staff' | 'member') =>
	(JSON.parse(readFileSync(join(data, 'sign-in.json'), 'utf8')) as Record<typeof who, { email: string; password: string }>)[who];

/** Signs somebody of the demo in. Gives the cookies. */
export async function signIn(origin: string, data: string, who: 'staff' | 'member'): Promise<string> {
	const { email, password } = someoneOf(data, who);
	const response = await fetch(`${origin}/api/auth/sign-in/email`, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ email, password })
	});
	return response.headers
		.getSetCookie()
		.map((c) => c.split(';')[0])
		.join('; ');
}

/** Uploads a file and opens its door to everybody. Gives its address's slug. */
export async function bringOpen(origin: string, staff: string, bytes: Uint8Array, name: string): Promise<string> {
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(bytes)]), name);
	const { slug } = (await (await fetch(`${origin}/api/v1/documents`, { method: 'POST', headers: { cookie: staff }, body: form })).json()) as {
		slug: string;
	};
	await fetch(`${origin}/api/v1/documents/${slug}`, {
		method: 'PATCH',
		headers: { cookie: staff, 'content-type': 'application/json' },
		body: JSON.stringify({ door: { position: 'open' } })
	});
	return slug;
}
