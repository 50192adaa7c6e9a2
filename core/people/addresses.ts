// Mail addresses as people paste them: one on a line, or parted by commas or semicolons, with or without names.
import { IanuaError } from '../errors';

export interface Addressee {
	readonly email: string;
	/** Empty where none was given. */
	readonly name: string;
}

const bare = /^[^\s@<>(),;:"]+@[^\s@<>(),;:"]+\.[^\s@<>(),;:".]{2,}$/;

/** Whether a text is one mail address, as plain as people have them (RFC 5321 allows odder ones, which nobody pastes). */
export const isAddress = (text: string): boolean => text.length <= 320 && bare.test(text);

/** Parts pasted text into entries; commas inside quotation marks part nothing. */
export const splitAddresses = (text: string): string[] =>
	(text.match(/(?:"[^"\n]*"|[^,;\n"])+/g) ?? []).map((part) => part.trim()).filter((part) => part !== '');

/**
 * Reads entries such as 'a@example.org' and '"Heron, Ann" <a@example.org>'. Throws `not-valid` for the first that is none, and for one
 * that is there twice.
 */
export function parseAddresses(entries: readonly string[]): Addressee[] {
	const seen = new Set<string>();
	return entries.map((entry) => {
		const text = entry.trim();
		const m = /^(?:"?([^"<>]*?)"?\s*)<([^<>]+)>$/.exec(text);
		const [email, name] = m ? [m[2]!.trim().toLowerCase(), m[1]!.trim().replace(/\s+/g, ' ').slice(0, 120)] : [text.toLowerCase(), ''];
		if (!isAddress(email)) throw new IanuaError('not-valid', { detail: `“${text.slice(0, 80)}” is not a mail address` });
		if (seen.has(email)) throw new IanuaError('not-valid', { detail: `${email} is there twice` });
		seen.add(email);
		return { email, name };
	});
}
