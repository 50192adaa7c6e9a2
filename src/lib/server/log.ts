// Structured logs, one JSON line each, with the request's id. Nothing that names a reader is written.
import pino, { type Logger } from 'pino';

let logger: Logger | undefined;

/** The log, one JSON line an event, to standard output. */
export function log(): Logger {
	return (logger ??= pino({ level: process.env.IANUA_LOG || 'info', base: null }));
}
