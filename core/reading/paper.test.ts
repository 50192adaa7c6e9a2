import { describe, expect, it } from 'vitest';
import { paperPath } from './paper';

describe('the part of a page that is paper', () => {
	it('is all of it where there are no pictures, or one that is the whole page', () => {
		expect(paperPath([])).toBe('none');
		expect(paperPath([0, 0, 0, 1, 1, 0])).toBe('none');
	});
	it('leaves a hole for each picture, also for one that stands askew', () => {
		expect(paperPath([0, 0, 0, 0.5, 0.5, 0])).toBe('polygon(evenodd, 0% 0%, 100% 0%, 100% 100%, 0% 100%, 0% 0%, 0% 0%, 0% 50%, 50% 50%, 50% 0%, 0% 0%, 0% 0%)');
		const askew = paperPath(new Float32Array([0.5, 0.25, 0.25, 0.5, 0.75, 0.5]));
		expect(askew).toContain('50% 25%, 25% 50%, 50% 75%, 75% 50%, 50% 25%');
		expect(paperPath([0, 0, 0, 0.1, 0.1, 0, 0.5, 0.5, 0.5, 0.6, 0.6, 0.5]).match(/(?<!\d)0% 0%/g)).toHaveLength(6);
	});
});
