// Secrets that are handed out once (tokens for programs, keys, invitations) and kept as hashes.
import { createHash, randomBytes } from 'node:crypto';

/** What every token for programs begins with. */
export const tokenMark = 'ianua_';
/** 256 random bits: no salt and no slow hash is needed against guessing. */
export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
/** 256 bits that nobody guesses, for an address or a header. */
export const newSecret = (): string => randomBytes(32).toString('base64url');
