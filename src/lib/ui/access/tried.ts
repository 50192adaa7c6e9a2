// What a tried door answers, in words.
import type { RefusedCode } from '#core/access/decide';
import { admittedWords, boundWords } from '#core/access/reach';
import { refusalWords } from '#core/access/refusal';
import type { Tried } from '$lib/server/access/try-door';

/** Why, and until when it stays so. */
export function triedWords({ allowed, reasons, changesAt }: Tried, zone: string): string {
	const { code, at } = reasons[0]!;
	const why = allowed ? admittedWords(code) : refusalWords(code as RefusedCode, zone, { at: at ? Date.parse(at) : undefined }).words;
	return changesAt ? `${why} Changes on ${boundWords(Date.parse(changesAt), zone, 'from')}.` : why;
}
