// Counting by the COUNTER Code of Practice, release 5, section 7 (from memory), with the model's worked cases.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { doubles, everyDay } from './counting';
import { documentAnswer, siteAnswer } from './words';

const at = (...seconds: number[]) => seconds.map((s) => ({ at: s * 1000, reader: 'r', document: 'd', kind: 'opened' }));
const counts = (...seconds: number[]) => doubles(at(...seconds)).filter((d) => !d).length;
const clock = (text: string) => Date.parse(`2026-11-24T${text}Z`) / 1000;

describe('double clicks', () => {
	it('10:01:00 and 10:01:29 count one, the later', () => expect(doubles(at(clock('10:01:00'), clock('10:01:29')))).toEqual([true, false]));
	it('10:01:00 and 10:01:35 count two', () => expect(counts(clock('10:01:00'), clock('10:01:35'))).toBe(2));
	it('0 s, 20 s, 40 s count one, at 40 s', () => expect(doubles(at(0, 20, 40))).toEqual([true, true, false]));
	it('0 s, 30 s one; 0 s, 31 s two', () => expect([counts(0, 30), counts(0, 31)]).toEqual([1, 2]));
	it('another reader, document or kind is no double', () => {
		const [a] = at(0);
		for (const other of [{ reader: 'x' }, { document: 'x' }, { kind: 'saved' }]) expect(doubles([a!, { ...a!, at: 5000, ...other }])).toEqual([false, false]);
	});
	it('the last of a chain always counts', () => {
		fc.assert(
			fc.property(fc.array(fc.nat(300), { minLength: 1 }), (seconds) => {
				expect(doubles(at(...seconds.sort((x, y) => x - y))).at(-1)).toBe(false);
			})
		);
	});
});

it('every day of a time stands in a series, also across a change of clocks', () => {
	const days = everyDay([{ day: '2026-10-25', openings: 3, saves: 1 }], '2026-10-24', '2026-10-26');
	expect(days.map((d) => [d.day, d.openings])).toEqual([
		['2026-10-24', 0],
		['2026-10-25', 3],
		['2026-10-26', 0]
	]);
});

it('the answer is a sentence made from the figures', () => {
	const say = (pieces: { text: string }[]) => pieces.map((p) => p.text).join('');
	expect(say(documentAnswer({ openings: 25, saves: 5, refusals: 26, readers: 11 }, 14, 11, 30))).toBe(
		'11 of the 14 who may open it have done so in the last 30 days: 25 openings and 5 copies saved. Turned away 26 times.'
	);
	expect(say(documentAnswer({ openings: 1, saves: 0, refusals: 0, readers: 1 }, null, 0, 7))).toBe(
		'1 reader in the last 7 days: 1 opening and 0 copies saved. '
	);
	expect(say(siteAnswer({ openings: 0, saves: 0, refusals: 0, readers: 0 }, 0, 30))).toBe('Nobody has opened a document in the last 30 days.');
});
