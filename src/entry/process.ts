// What the processes of the server share: settings that are right or a sentence, and errors that nobody awaited.
import { log } from '#server/log';
import { settings, unknownSettings, type Settings } from '#server/settings';
import packageJson from '../../package.json' with { type: 'json' };

/** What keeps the server from starting is said in a sentence; where in the code it was found is for whoever asks for it. */
export function cannotStart(error: unknown): never {
	const { message, stack } = error as Error;
	console.error(process.env.IANUA_LOG === 'debug' ? stack : message);
	process.exit(1);
}

/** The settings; what is wrong with them ends the process, and what nothing reads is told. */
export function checkedSettings(): Settings {
	for (const { name, nearest } of unknownSettings(process.env))
		console.warn(`${name} is not a setting, and nothing reads it. The nearest that is: ${nearest}.`);
	try {
		return settings();
	} catch (error) {
		return cannotStart(error);
	}
}

/** One line when a program is up: what it is, of which version, and what it stands on. */
export function tellStart(program: 'web' | 'jobs', more: Record<string, string> = {}): void {
	const { IANUA_DATABASE_URL, IANUA_FILES, IANUA_JOBS, files } = settings();
	const { host, pathname } = new URL(IANUA_DATABASE_URL);
	log().info(
		{ program, version: packageJson.version, node: process.versions.node, ...more, database: host + pathname, store: IANUA_FILES ?? files, jobs: IANUA_JOBS },
		'started'
	);
}

/**
 * Whether an error that nobody awaited is that of a connection to the database: it was reset, or gone at the very moment of writing. Who
 * awaits a query on such a connection is refused, and the next one has a new connection: the server outlives its database.
 */
function isLostConnection(error: Error & { code?: string }): boolean {
	return (
		['ECONNRESET', 'ECONNREFUSED', 'EPIPE', 'CONNECTION_CLOSED', 'CONNECTION_ENDED', '57P01', '57P02', '57P03'].includes(error.code ?? '') ||
		(error instanceof TypeError && /nextWrite \(.*postgres.*connection\.js/.test(error.stack ?? ''))
	);
}

/** Errors that nobody awaited end the process, but those of a connection to the database that was lost. */
export function outliveDatabase(): void {
	process.on('uncaughtException', (error) => {
		if (isLostConnection(error)) {
			log().warn({ err: error }, 'a connection to the database was lost');
			return;
		}
		log().fatal({ err: error }, 'unexpected error; the process ends');
		process.exit(1);
	});
}
