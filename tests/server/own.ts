// Applications of a test's own, beside the one that all share.
import { freePort } from '#server/db/cluster';
import { runIanua, type Running, type RunOptions } from '../../scripts/run';

/** What the shared application has set in this process. */
const shared = ['IANUA_DATABASE_URL', 'IANUA_ORIGIN', 'IANUA_DATA', 'IANUA_PORT', 'IANUA_SECRET', 'IANUA_FILES', 'IANUA_MAX_UPLOAD'];

/** Starts one on a data folder, empty and quiet unless said; `settings` are its own, none is the shared one's. */
export async function startOwn({ settings = {}, ...options }: Partial<RunOptions> & { data: string; settings?: Record<string, string> }): Promise<Running> {
	const before = Object.fromEntries(shared.map((name) => [name, process.env[name]]));
	for (const name of shared) delete process.env[name];
	Object.assign(process.env, settings);
	try {
		return await runIanua({ port: await freePort(), demo: false, quick: true, log: 'silent', ...options });
	} finally {
		for (const [name, value] of Object.entries(before)) {
			if (value === undefined) delete process.env[name];
			else process.env[name] = value;
		}
	}
}

const cookieOf = (response: Response) => ({
	cookie: response.headers
		.getSetCookie()
		.map((c) => c.split(';')[0])
		.join('; ')
});

const owner = { email: 'o@example.org', password: 'the-first-password' };

/** Makes the site and its owner, as the first visit does; gives the headers of one who is signed in. */
export async function begin({ origin, beginCode }: Running): Promise<{ cookie: string }> {
	const made = await fetch(`${origin}/begin`, {
		method: 'POST',
		redirect: 'manual',
		headers: { 'content-type': 'application/x-www-form-urlencoded', accept: 'text/html' },
		body: new URLSearchParams({ code: beginCode(), site: 'A site of its own', zone: 'Europe/London', name: 'O', ...owner })
	});
	if (made.status !== 303) throw new Error(`The first visit answered ${made.status}.`);
	return cookieOf(made);
}

/** Signs that owner in again. */
export async function signOwnerIn({ origin }: Running): Promise<{ cookie: string }> {
	const response = await fetch(`${origin}/api/auth/sign-in/email`, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify(owner)
	});
	if (!response.ok) throw new Error(`Signing in answered ${response.status}.`);
	return cookieOf(response);
}
