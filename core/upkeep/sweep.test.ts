import { describe, expect, it } from 'vitest';
import { maySweep } from './sweep';

describe('a sweep', () => {
	it('puts by twenty files whatever their share, and more only up to a twentieth of the store', () => {
		for (const [strays, files, may] of [
			[0, 0, true],
			[20, 20, true],
			[21, 420, true],
			[22, 420, false],
			[47, 47, false],
			[21, 100, false],
			[5000, 100_000, true],
			[5001, 100_000, false]
		] as const)
			expect([strays, files, maySweep(strays, files)]).toEqual([strays, files, may]);
	});
});
