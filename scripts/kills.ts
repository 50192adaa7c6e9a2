// Kills the web server or PostgreSQL, restarts PostgreSQL or fills the disk, again and again, while fifty readers ask for a file; and looks
// whether for each response of which a byte arrived there is an entry in the ledger, and none twice.
import { closeSync, openSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import postgres from 'postgres';
import { runIanua, type Running } from './run';

export interface Kills {
	/** Responses of which a byte arrived. */
	readonly answered: number;
	/** Of those, without an entry. */
	readonly missing: number;
	/** Readers with more than one entry, though what they asked for was one reading. */
	readonly twice: number;
	/** Requests that got no byte. */
	readonly cut: number;
}

const readers = 50;
const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** Whether it is ready within so many tenths of a second. */
async function ready(origin: string, tries: number): Promise<boolean> {
	for (let i = 0; i < tries; i++) {
		if (
			await fetch(`${origin}/readyz`).then(
				(r) => r.ok,
				() => false
			)
		)
			return true;
		await wait(100);
	}
	return false;
}

/** Each reader asks for so many parts of the file, of so many bytes, one after the other: one reading. */
const [parts, partBytes] = [[0, 512, 1024], 512];

/** How many bytes came first of an answer; the rest of it is not waited for. */
async function firstBytes({ body }: Response): Promise<number> {
	// Node's streams can be iterated; the DOM's types do not say so
	for await (const chunk of body as unknown as AsyncIterable<Uint8Array>) if (chunk.length) return chunk.length;
	return 0;
}

/** Readers one after the other, each new, until told to end: gives those that got a byte, and counts those that got none. */
function reading(origin: string, path: string, ended: () => boolean) {
	const got: string[] = [];
	let cut = 0;
	const one = async () => {
		while (!ended()) {
			const reader = crypto.randomUUID();
			let began = false;
			try {
				for (const from of parts) {
					const response = await fetch(origin + path, {
						signal: AbortSignal.timeout(10_000),
						headers: {
							cookie: `ianua_reader=${reader}`,
							range: `bytes=${from}-${from + partBytes - 1}`,
							'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
						}
					});
					const bytes = await firstBytes(response);
					if (!response.ok || !bytes) throw new Error(`it answered ${response.status}`);
					if (!began) got.push(reader);
					began = true;
				}
			} catch {
				if (!began) cut++;
				await wait(20);
			}
		}
	};
	return { got, cut: () => cut, done: Promise.all(Array.from({ length: readers }, one)) };
}

export type Mishap = 'web server killed' | 'PostgreSQL killed' | 'PostgreSQL restarted' | 'disk filled';

/** Leaves no room on the disk where a folder lies; gives what makes room again. */
function fill(folder: string): () => void {
	const path = join(folder, 'filler');
	const file = openSync(path, 'w', 0o600);
	// ever smaller pieces, until not even a block goes in
	for (let size = 4 * 1024 * 1024; size >= 4096; size /= 2) {
		const piece = Buffer.alloc(size);
		try {
			for (;;) writeSync(file, piece);
		} catch (error) {
			if ((error as { code?: string }).code !== 'ENOSPC') throw error;
		}
	}
	closeSync(file);
	return () => rmSync(path);
}

/** PostgreSQL started again after its end; its last processes may still hold the shared memory. */
async function startAgain(running: Running): Promise<void> {
	for (let i = 0; ; i++) {
		try {
			running.restartPostgres();
			return;
		} catch (error) {
			if (i > 40) throw error;
			await wait(250);
		}
	}
}

/** Lets it happen; gives what runs afterwards. */
async function happen(what: Mishap, running: Running, port: number): Promise<Running> {
	switch (what) {
		case 'web server killed':
			running.kill();
			await running.ended;
			return runIanua({ data: running.data, port, demo: false, log: 'silent' });
		case 'PostgreSQL killed':
			running.killPostgres();
			await wait(150);
			await startAgain(running);
			return running;
		case 'PostgreSQL restarted':
			await startAgain(running);
			return running;
		case 'disk filled': {
			const makeRoom = fill(running.data);
			await wait(1500);
			makeRoom();
			// it may have ended for want of room, and is then brought up by whoever keeps it
			if (!(await ready(running.origin, 20))) await startAgain(running);
			return running;
		}
	}
}

/** `path` leads to an open document's file on a site that keeps the reader cookie. Gives the sums over all rounds, and what runs at the end. */
export async function kill(what: Mishap, rounds: number, first: Running, port: number, path: string): Promise<{ kills: Kills; running: Running }> {
	let running = first;
	let [answered, missing, twice, cut] = [0, 0, 0, 0];
	for (let round = 0; round < rounds; round++) {
		let ended = false;
		const asked = reading(running.origin, path, () => ended);
		// at another moment of the work each time
		await wait(300 + ((round * 137) % 400));
		running = await happen(what, running, port);
		if (!(await ready(running.origin, 300))) throw new Error('not up again');
		await wait(300);
		ended = true;
		await asked.done;
		// runIanua always sets it
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
