import { describe, expect, it } from 'vitest';
import { catalogue } from '../errors';
import type { RefusedCode } from './decide';
import { turnedAwayPage } from './turned-away';

const zone = 'Europe/London';
const own = { heading: 'For our wardens', words: 'Ask the warden of your lock.', button: { label: 'Join us', target: '/join' }, knock: false };
const site = { heading: 'The society’s own', words: 'Members read more.', button: { label: 'Become a member', target: 'https://example.org/join' } };

describe('turned away', () => {
	it('what is hidden looks like nothing, whatever words it has', () => {
		for (const code of ['shut', 'set-aside'] as const)
			expect(turnedAwayPage(code, zone, {}, own, site)).toEqual({
				heading: 'Nothing here',
				words: catalogue['not-found'].words,
				reason: null,
				offersSignIn: false,
				button: null,
				knock: false
			});
	});
	it('own words go before the site’s, and the reason stays told', () => {
		expect(turnedAwayPage('not-admitted', zone, {}, own, site)).toMatchObject({
			...own,
			reason: 'You are signed in, but this is kept for other groups than yours.'
		});
		expect(turnedAwayPage('sign-in', zone, {}, null, site)).toMatchObject({
			heading: site.heading,
			words: site.words,
			button: site.button,
			offersSignIn: true,
			knock: true
		});
		expect(turnedAwayPage('sign-in', zone, {}, null, null)).toMatchObject({ heading: 'For members', reason: null, button: null });
		// half of one's own
		expect(turnedAwayPage('closed', zone, {}, { heading: 'Over' }, null)).toMatchObject({ heading: 'Over', reason: null });
	});
	it('one knocks where staff could let one in', () => {
		const may = (code: RefusedCode) => turnedAwayPage(code, zone, { at: 0 }, null, null).knock;
		for (const code of ['sign-in', 'not-admitted', 'membership-lapsed', 'membership-not-yet', 'key-lapsed', 'key-withdrawn', 'key-used-up'] as const)
			expect(may(code)).toBe(true);
		for (const code of ['not-yet', 'closed', 'key-password', 'save-not-allowed', 'print-not-allowed'] as const) expect(may(code)).toBe(false);
	});
});
