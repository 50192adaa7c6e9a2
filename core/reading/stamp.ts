// The number and the words of a stamped copy.

/** Letters and digits that are not taken for one another on paper (Crockford's base 32: without I, L, O and U). */
const signs = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';

/** A number from 10 random bytes: sixteen signs in groups of four, 80 bits. */
export function stampNumber(random: Uint8Array): string {
	if (random.length !== 10) throw new RangeError('a stamp number is made of 10 bytes');
	let bits = 0n;
	for (const byte of random) bits = (bits << 8n) | BigInt(byte);
	let text = '';
	for (let i = 15; i >= 0; i--) text += signs[Number((bits >> BigInt(i * 5)) & 31n)];
	return text.replace(/(.{4})(?=.)/g, '$1-');
}

/** The line on each page. Example: 'Copy of Wren Lockyer, 25 November 2026, no. 7K3Q-9XWD-11AB-ZZ09'. */
export function stampWords(name: string, day: string, number: string): string {
	const when = new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', day: 'numeric', month: 'long', year: 'numeric' }).format(Date.parse(`${day}T00:00Z`));
	return `Copy of ${name}, ${when}, no. ${number}`;
}

/** Every stamp number in a text, each once; spaces and letters taken for digits, as copying and scanning make them, are put right. */
export function stampNumbersIn(text: string): string[] {
	const found = new Set<string>();
	for (const [m] of text.toUpperCase().matchAll(/(?<![0-9A-Z])(?:[0-9A-Z]\s?){4}(?:\s?[-‐–]\s?(?:[0-9A-Z]\s?){4}){3}(?![0-9A-Z])/g)) {
		const plain = m
			.replace(/[^0-9A-Z]/g, '')
			.replace(/[IL]/g, '1')
			.replace(/O/g, '0');
		if (plain.length === 16 && Array.from(plain).every((c) => signs.includes(c))) found.add(plain.replace(/(.{4})(?=.)/g, '$1-'));
	}
	return [...found];
}
