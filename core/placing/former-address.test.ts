// Former addresses: brought to one form (RFC 3986, sections 3.3 and 6.2.2: the same path is written in many ways), and read from what people paste.
import { describe, expect, it } from 'vitest';
import { closestFirst, formerPath, isPattern, readFormer, starName, worthTelling } from './former-address';

describe('the path of a former address', () => {
	it('is the same however it is written', () => {
		for (const text of [
			'https://old.example.org/files/A%20guide.pdf',
			'http://OLD.example.org/files/A guide.pdf#page=3',
			'/files/A%20guide.pdf',
			' /files/A guide.pdf/ '
		])
			expect([text, formerPath(text)]).toEqual([text, '/files/A%20guide.pdf']);
		expect(formerPath('/dateien/Führer.pdf')).toBe(formerPath('/dateien/F%C3%BChrer.pdf'));
		// unreserved letters need not be encoded (6.2.2.2)
		expect(formerPath('/%66iles/a%2Dguide.pdf')).toBe('/files/a-guide.pdf');
		// what was encoded to be no slash stays so (2.2)
		expect(formerPath('/files/a%2Fb.pdf')).toBe('/files/a%2Fb.pdf');
	});
	it('keeps the query, which may be all that tells one file from another', () => {
		expect(formerPath('https://old.example.org/download.php?id=12&x=y#top')).toBe('/download.php?id=12&x=y');
		expect(formerPath('/?page_id=7')).toBe(null);
	});
	it('is none where this site answers by itself, or nothing can be read', () => {
		for (const text of [
			'',
			'files/a.pdf',
			'/',
			'https://old.example.org',
			'/d/cruising-guide',
			'/desk/documents',
			'/api/v1/documents',
			'/k/abc',
			'/embed/x',
			'/sign-in',
			`/${'a'.repeat(600)}`,
			'mailto:someone@example.org'
		])
			expect([text, formerPath(text)]).toEqual([text, null]);
		expect(formerPath('/files/100%.pdf')).toBe('/files/100%.pdf');
	});
});

describe('what is pasted', () => {
	it('is read line by line, with tabs, semicolons, commas or spaces between', () => {
		const text =
			'old address;document\n/files/a.pdf;tolls\nhttps://old.example.org/b c.pdf\t/d/cruising-guide\r\n"/files/d, e.pdf",maps-of-2024\n/files/f.pdf https://docs.example.org/d/minutes\n\n/files/a.pdf\nnot an address, tolls\n/files/g.pdf, No Such Thing!';
		expect(readFormer(text).map(({ line, read }) => [line, read?.path ?? null, read?.document ?? null])).toEqual([
			[2, '/files/a.pdf', 'tolls'],
			[3, '/b%20c.pdf', 'cruising-guide'],
			[4, '/files/d%2C%20e.pdf', 'maps-of-2024'],
			[5, '/files/f.pdf', 'minutes'],
			[7, null, null],
			[8, null, null],
			[9, null, null]
		]);
	});
	it('tells what is worth telling: what looks like a file, or to which others lead', () => {
		expect(['/a.pdf', '/x/Report.PDF?v=2', '/old/page.aspx', '/winter'].map((path) => worthTelling(path, false))).toEqual([true, true, false, false]);
		expect(worthTelling('/winter', true)).toBe(true);
		expect(worthTelling(`/${'a'.repeat(600)}.pdf`, true)).toBe(false);
	});
});

describe('a pattern', () => {
	it('has stars for letters of one step, or of several, and the last says the name', () => {
		for (const [pattern, path, name] of [
			['/files/*.pdf', '/files/guide.pdf', 'guide'],
			['/files/*.pdf', '/FILES/Guide.PDF', 'Guide'],
			['/files/*.pdf', '/files/2019/guide.pdf', null],
			['/files/**/*.pdf', '/files/2019/spring/A%20guide.pdf', 'A guide'],
			// a step before two stars may be none at all
			['/files/**/*.pdf', '/files/guide.pdf', 'guide'],
			['/files/**/guide.pdf', '/files/guide.pdf', ''],
			['/files/**/guide.pdf', '/files/a/b/guide.pdf', 'a/b'],
			['/files/**', '/files/2019/guide.pdf', '2019/guide.pdf'],
			['/files/*-*.pdf', '/files/lock-guide-2.pdf', '2'],
			['/get.php?id=*', '/get.php?id=7', '7'],
			['/get.php?id=*', '/get.php', null],
			// a query that the pattern does not speak of is no hindrance
			['/files/*.pdf', '/files/guide.pdf?version=3', 'guide'],
			// what means something in a regular expression is itself here
			['/a.b+(c)/*', '/a.b+(c)/d', 'd'],
			['/a.b/*', '/axb/d', null],
			['/files/*', '/files/100%', '100%']
		] as const)
			expect([pattern, path, starName(pattern, path)]).toEqual([pattern, path, name]);
	});
	it('is read from a list, leads to one document or to the one of the name, and has three stars at most', () => {
		expect(readFormer('/files/2019/*, yearbook\n/files/**/*.pdf, *').map(({ read }) => read)).toEqual([
			{ path: '/files/2019/*', document: 'yearbook' },
			{ path: '/files/**/*.pdf', document: '*' }
		]);
		expect([isPattern('/files/*'), isPattern('/files/a.pdf')]).toEqual([true, false]);
		expect([formerPath('/*/*/*'), formerPath('/*/*/*/*')]).toEqual(['/*/*/*', null]);
		expect(['/files/**', '/files/2019/*', '/*'].sort(closestFirst)).toEqual(['/files/2019/*', '/files/**', '/*']);
	});
	it('is tried on an address made to take long', () => expect(starName('/**a**a**b', `/${'a'.repeat(480)}`)).toBe(null));
});
