// What belongs together over several programs is written down under one id (W3C Trace Context, level 1: the field `traceparent`).
import { randomBytes } from 'node:crypto';

const field = /^(?!ff)[0-9a-f]{2}-(?!0{32})([0-9a-f]{32})-(?!0{16})[0-9a-f]{16}-[0-9a-f]{2}(?:-.*)?$/;

/** The id under which whoever asks writes down what they do; undefined where they say none, or none that can be read (section 3.2.2). */
export const traceOf = (given: string | null): string | undefined => (given === null ? undefined : field.exec(given)?.[1]);

/** The field for a request of our own, under a UUID of ours as its id. */
export const newTrace = (id: string): string => `00-${id.replaceAll('-', '')}-${randomBytes(8).toString('hex')}-01`;
