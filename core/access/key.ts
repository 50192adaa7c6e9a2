// A key: an address that opens one document for whoever holds it, with limits of its own, and why one does not open.
import { Type, type Static } from '@sinclair/typebox';
import type { ErrorCode } from '../errors';
import { Line } from '../text/line';
import type { Allowance } from './door';
import type { Instant } from './hours';

const closed = { additionalProperties: false } as const;

/** What a key is issued with. What is not said: saving and printing allowed, no end, any number of openings, no password. */
export const KeyGiven = Type.Object(
	{
		label: Line(200),
		allow: Type.Optional(Type.Object({ save: Type.Optional(Type.Boolean()), print: Type.Optional(Type.Boolean()) }, closed)),
		/** A day (through the whole of it, in the site's zone) or an instant. */
		until: Type.Optional(Type.Union([Type.String({ format: 'date' }), Type.String({ format: 'date-time' }), Type.Null()])),
		openings: Type.Optional(Type.Union([Type.Integer({ minimum: 1, maximum: 1_000_000 }), Type.Null()])),
		password: Type.Optional(Type.Union([Type.String({ minLength: 4, maxLength: 200 }), Type.Null()]))
	},
	closed
);
export type KeyGiven = Static<typeof KeyGiven>;

/** A key that somebody holds for the document in question. */
export interface HeldKey {
	readonly id: string;
	readonly allow: Allowance;
	readonly withdrawn: boolean;
	/** Before which it holds. */
	readonly until: Instant | null;
	/** Openings that it still gives, that of a reading under way among them; null without number. */
	readonly openingsLeft: number | null;
	/** It has a password that was not given in this browser. */
	readonly wantsPassword: boolean;
}

export type KeyTrouble = Extract<ErrorCode, `key-${'withdrawn' | 'lapsed' | 'used-up' | 'password'}`>;

/** Why a key does not open at an instant; null where it is good. */
export function keyTrouble(key: Pick<HeldKey, 'withdrawn' | 'until' | 'openingsLeft' | 'wantsPassword'>, at: Instant): KeyTrouble | null {
	if (key.withdrawn) return 'key-withdrawn';
	if (key.until !== null && at >= key.until) return 'key-lapsed';
	if (key.openingsLeft !== null && key.openingsLeft <= 0) return 'key-used-up';
	return key.wantsPassword ? 'key-password' : null;
}

/** How a key stands for those who issued it, whoever holds it: a password that is not given yet is no trouble. */
export const keyStates = ['good', 'withdrawn', 'lapsed', 'used-up'] as const;
export type KeyState = (typeof keyStates)[number];

/** How a key stands at an instant. `keyState({withdrawn: false, until: null, openingsLeft: 0}, at)` → 'used-up'. */
export function keyState(key: Pick<HeldKey, 'withdrawn' | 'until' | 'openingsLeft'>, at: Instant): KeyState {
	return (keyTrouble({ ...key, wantsPassword: false }, at)?.slice('key-'.length) ?? 'good') as KeyState;
}
