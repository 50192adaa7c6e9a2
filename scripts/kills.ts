// Kills the web server or PostgreSQL again and again while fifty readers ask for a file, and looks whether for each response of which a
// byte arrived there is an entry in the ledger, and none twice.
import postgres from 'postgres';
import { runIanua, type Running } from './run';

export interface Kills {
	/** Responses of which a byte arrived. */
	readonly answered: number;
	/** Of those, without an entry. */
	readonly missing: number;
	/** Readers with more than one entry, though they asked once. */
	readonly twice: number;
	/** Requests that got no byte. */
	readonly cut: number;
}

const readers = 50;
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

async function healthy(origin: string): Promise<void> {
	for (let i = 0; i < 300; i++) {
		if (
			await fetch(`${origin}/readyz`).then(
				(r) => r.ok,
				() => false
			)
		)
			return;
		await wait(100);
	}
	throw new Error('not up again');
}

/** Readers one after the other, each new, until told to end: gives those that got a byte, and counts those that got none. */
function reading(origin: string, path: string, ended: () => boolean) {
	const got: string[] = [];
	let cut = 0;
	const one = async () => {
		while (!ended()) {
			const reader = crypto.randomUUID();
			try {
				const response = await fetch(origin + path, {
					signal: AbortSignal.timeout(10_000),
					headers: { cookie: `ianua_reader=${reader}`, 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' }
				});
				if (!response.ok) {
					await response.arrayBuffer();
					cut++;
					await wait(20);
					continue;
				}
				for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
					if (!chunk.length) continue;
					got.push(reader);
					break;
				}
			} catch {
				if (got.at(-1) !== reader) cut++;
				await wait(20);
			}
		}
	};
	return { got, cut: () => cut, done: Promise.all(Array.from({ length: readers }, one)) };
}

/** `path` leads to an open document's file on a site that keeps the reader cookie. Gives the sums over all rounds, and what runs at the end. */
export async function kill(
	what: 'web server' | 'PostgreSQL',
	rounds: number,
	first: Running,
	port: number,
	path: string
): Promise<{ kills: Kills; running: Running }> {
	let running = first;
	let [answered, missing, twice, cut] = [0, 0, 0, 0];
	for (let round = 0; round < rounds; round++) {
		let ended = false;
		const asked = reading(running.origin, path, () => ended);
		// at another moment of the work each time
		await wait(300 + ((round * 137) % 400));
		if (what === 'PostgreSQL') {
			running.killPostgres();
			await wait(150);
			for (let i = 0; ; i++) {
				try {
					running.restartPostgres();
					break;
				} catch (error) {
					if (i > 40) throw error;
					await wait(250); // its last processes still hold the shared memory
				}
			}
		} else {
			running.kill();
			await running.ended;
			running = await runIanua({ data: running.data, port, demo: false, log: 'silent' });
		}
		await healthy(running.origin);
		await wait(300);
		ended = true;
		await asked.done;
		const sql = postgres(running.environment.IANUA_DATABASE_URL!, { max: 1, onnotice: () => {} });
		const rows = await sql<{ reader: string; n: number }[]>`
			select reader, count(*)::int as n from ledger where kind = 'opened' and reader = any(${asked.got.map((r) => `c:${r}`)}) group by 1`;
		await sql.end();
		answered += asked.got.length;
		missing += asked.got.length - rows.length;
		twice += rows.filter((r) => r.n > 1).length;
		cut += asked.cut();
	}
	return { kills: { answered, missing, twice, cut }, running };
}
