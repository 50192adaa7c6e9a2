// Codes of the second factor, as a code program makes them.
import { createHmac } from 'node:crypto';

/** The code now, or so many half minutes ahead, of a secret in base 32 (RFC 6238 with SHA-1, 30 s and 6 digits; RFC 4226, 5.3; RFC 4648, 6). */
export function totp(secret: string, ahead = 0): string {
	const bits = [...secret].map((c) => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(c).toString(2).padStart(5, '0')).join('');
	const key = Buffer.from(bits.match(/.{8}/g)!.map((b) => Number.parseInt(b, 2)));
	const counter = Buffer.alloc(8);
	counter.writeBigUInt64BE(BigInt(Math.floor(Date.now() / 30_000) + ahead));
	const hash = createHmac('sha1', key).update(counter).digest();
	const offset = hash[19]! & 15;
	return String((hash.readUInt32BE(offset) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}
