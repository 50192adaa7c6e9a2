import { describe, expect, it } from 'vitest';
import { leadsOn, type Previewed } from './stay';

const here = new URL('https://site.example/desk/pages/a/preview?as=visitor');
const previewed: Previewed = { as: 'group:wardens', pages: { '/': 'front', '/library': 'lib' }, framed: false };
const on = (path: string, change: Partial<Previewed> = {}) => leadsOn(new URL(path, here), here, { ...previewed, ...change });

describe('a press in a preview', () => {
	it('on a page leads to its draft, for the same person, and stays in its frame', () => {
		expect(on('/library')).toBe('/desk/pages/lib/preview?as=group%3Awardens');
		expect(on('/')).toBe('/desk/pages/front/preview?as=group%3Awardens');
		expect(on('/library', { framed: true })).toBe('/desk/pages/lib/preview?as=group%3Awardens&on=wide&bare=');
	});
	it('on anything else tries its door for them; staff open it', () => {
		expect(on('/d/map/read?from=x')).toBe('/desk/try?path=%2Fd%2Fmap%2Fread&as=group%3Awardens');
		expect(on('/d/map/read?from=x#page=2', { as: 'staff' })).toBe('/d/map/read?from=x#page=2');
	});
	it('within the page stays there', () => {
		expect(on('#a-heading')).toBeNull();
		expect(on('?as=visitor&folder=Notices')).toBeNull();
	});
});
