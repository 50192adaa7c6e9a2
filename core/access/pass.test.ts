// What the claims of a pass have to say: RFC 7519 (JSON Web Token), sections 4.1.1 to 4.1.7, and our own bounds (model: at most five minutes).
import { describe, expect, it } from 'vitest';
import { passTrouble, type PassClaims } from './pass';

const now = Date.UTC(2026, 10, 30, 12);
const seconds = now / 1000;
const asked = { origin: 'https://docs.example.org', website: { origin: 'https://club.example.org', groups: ['friends', 'lock-wardens'] }, now };
const right: PassClaims = {
	iss: 'https://club.example.org',
	aud: 'https://docs.example.org',
	sub: '4711',
	name: 'Ada Lock',
	groups: ['friends'],
	iat: seconds - 10,
	exp: seconds + 110,
	jti: 'a-number-of-its-own'
};
const trouble = (change: Partial<PassClaims>, more: Partial<typeof asked> = {}) => passTrouble({ ...right, ...change }, { ...asked, ...more });

describe('a pass', () => {
	it('lets in where all is right', () => {
		expect(trouble({})).toBeNull();
		// 4.1.3: “aud” may be a list, of which one has to be us
		expect(trouble({ aud: ['https://elsewhere.example.org', 'https://docs.example.org'] })).toBeNull();
		expect(trouble({ groups: ['friends', 'lock-wardens'] })).toBeNull();
		expect(trouble({ iat: seconds, exp: seconds + 300 })).toBeNull();
	});
	it('is for us, from whom it says', () => {
		expect(trouble({ aud: 'https://elsewhere.example.org' })).toMatch(/“aud” has to be https:\/\/docs/);
		expect(trouble({ aud: [] })).toMatch(/“aud”/);
		expect(trouble({ iss: 'https://club.example.org/' })).toMatch(/“iss”/);
		expect(trouble({ iss: 'https://CLUB.example.org' })).toMatch(/“iss”/);
	});
	it('holds for at most five minutes, and clocks may be 30 seconds apart', () => {
		expect(trouble({ iat: seconds, exp: seconds + 301 })).toMatch(/at most 300 seconds/);
		expect(trouble({ exp: seconds - 10, iat: seconds - 100 })).toBeNull();
		expect(trouble({ exp: seconds - 30, iat: seconds - 100 })).toMatch(/“exp” is over/);
		expect(trouble({ iat: seconds + 30, exp: seconds + 90 })).toBeNull();
		expect(trouble({ iat: seconds + 31, exp: seconds + 90 })).toMatch(/in the future/);
		expect(trouble({ iat: seconds, exp: seconds })).toMatch(/later than “iat”/);
	});
	it('grants no group that its website may not', () => {
		expect(trouble({ groups: ['friends', 'owners'] })).toMatch(/may not grant “owners”/);
		expect(trouble({}, { website: { ...asked.website, groups: [] } })).toMatch(/may not grant “friends”/);
	});
});
