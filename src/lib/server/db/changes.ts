// Hearing of changes: the database tells every server of each as its transaction is committed (`tell_of_change` in drizzle/), on a line of
// its own; what changes through this server counts at once besides (hooks.server.ts). What was read may be used again only while the line stands.
import postgres from 'postgres';
import { settings } from '../settings';

/** What changed is not told; of work that waits it is said which. */
const [changeChannel, workChannel] = ['ianua_changed', 'ianua_work'];

/** How often something has changed, as far as is known here. */
let changes = 0;
/** The same, for whoever keeps what was made of it. */
export const changesSoFar = (): number => changes;
let line: postgres.Sql | undefined;
/** When the line was last seen to listen, and when that was last tried in vain (ms of performance.now()). */
let [heardAt, failedAt] = [-Infinity, -Infinity];
let asking: Promise<boolean> | undefined;

/** The line is asked again whether it listens where that was longer ago than this (ms), unless who asks wants it surer. */
const sureFor = 1000;
/** A line that is down is not tried again sooner (ms); one that does not answer within as much is down. */
const patience = 1000;

/** Something changes: what was remembered is used no more. */
export function changed(): void {
	changes++;
}

const lineDown = () => (heardAt = -Infinity);

/** Who is told of work of a kind. */
const waiting = new Map<string, Set<() => void>>();
/** Has something done whenever a server says that there is work of a kind; once more when the line stands again after it was down. */
export function whenTold(kind: string, work: () => void): void {
	waiting.set(kind, (waiting.get(kind) ?? new Set()).add(work));
}

function notified(channel: string, kind: string): void {
	if (channel === changeChannel) changed();
	else for (const work of waiting.get(kind) ?? []) work();
}

function open(): postgres.Sql {
	// what it calls at a notification is in the package, and not in its types
	const options = { max: 1, max_lifetime: null, onnotice: () => {}, onnotify: notified, onclose: lineDown, connection: { application_name: 'ianua changes' } };
	return postgres(settings().IANUA_DATABASE_URL, options);
}

async function listens(): Promise<boolean> {
	line ??= open();
	// what was told before this answer has come before it, on the one connection
	const channels = await line`select pg_listening_channels()`;
	if (!channels.length) {
		await line.unsafe(`listen ${changeChannel}; listen ${workChannel}`);
		// something may have changed, and work may have come, while nobody listened
		changed();
		for (const work of [...waiting.values()].flatMap((all) => [...all])) work();
	}
	return true;
}

async function ask(): Promise<boolean> {
	const asked = performance.now();
	let late: NodeJS.Timeout | undefined;
	const tooLate = new Promise<false>((resolve) => (late = setTimeout(resolve, patience, false)));
	const heard = await Promise.race([listens().catch(() => false), tooLate]);
	clearTimeout(late);
	if (heard) heardAt = asked;
	else {
		failedAt = performance.now();
		// a connection that hangs is given up, with whatever waits on it
		void line?.end({ timeout: 0 }).catch(() => {});
		line = undefined;
		lineDown();
	}
	return heard;
}

/** Whether every change is heard of that was committed `within` ms before this call, or earlier: 0 is every one. */
export async function changesAreHeard(within = sureFor): Promise<boolean> {
	const since = performance.now() - within;
	while (heardAt < since) {
		if (performance.now() - failedAt < patience) return false;
		// one that is under way may have begun too early
		if (!(await (asking ??= ask().finally(() => (asking = undefined))))) return false;
	}
	return true;
}

/** Tells every server that there is work of a kind; a line that is down hears nothing, and looks for itself. */
export async function tellOfWork(sql: postgres.Sql, kind: string): Promise<void> {
	await sql`select pg_notify(${workChannel}, ${kind})`;
}

/** Keeps the line standing, for those who wait to be told. */
export function keepHearing(): void {
	setInterval(() => void changesAreHeard(), 20_000).unref();
}

/** Ends the line: at shutdown, and at the end of scripts and tests. */
export async function closeChanges(): Promise<void> {
	const was = line;
	line = undefined;
	lineDown();
	await was?.end({ timeout: 5 });
}
