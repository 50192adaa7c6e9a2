import { describe, expect, it } from 'vitest';
import { contrast, leastContrast, siteInk } from './colour';
import { askedColours } from './look';

const asked = (query: string) => askedColours((name) => new URLSearchParams(query).get(name));

describe('the colours that another website asks for', () => {
	it('are taken as they are where words can be read on them', () => {
		expect(asked('colour=8a1c1c&background=f4efe6')).toEqual({ colour: '#8a1c1c', background: '#f4efe6' });
		expect(asked('colour=%238A1C1C')).toEqual({ colour: '#8a1c1c', background: null });
	});
	it('are made legible where they are not', () => {
		const { colour, background } = asked('colour=ffff00&background=222222');
		expect(contrast(colour ?? '', '#ffffff')).toBeGreaterThanOrEqual(leastContrast);
		expect(contrast(background ?? '', siteInk)).toBeGreaterThanOrEqual(leastContrast);
	});
	it('are none where they are no colours: nothing else gets into a style', () => {
		for (const query of ['', 'colour=red', 'colour=8a1c1', 'colour=8a1c1c;x:y', 'background=url(x)', 'colour=8a1c1c%0a'])
			expect(asked(query), query).toEqual({ colour: null, background: null });
	});
});
