// RFC 6266, section 5 (examples) and RFC 8187, section 3.2.3.
import { parse } from 'content-disposition';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { attachmentDisposition, disposition, savedName } from './disposition';

describe('the examples of RFC 6266, section 5, as the package we write with reads them', () => {
	it('Attachment; filename=example.html', () =>
		expect(parse('Attachment; filename=example.html')).toMatchObject({ type: 'attachment', parameters: { filename: 'example.html' } }));
	it('INLINE; FILENAME= "an example.html"', () =>
		expect(parse('INLINE; FILENAME= "an example.html"')).toMatchObject({ type: 'inline', parameters: { filename: 'an example.html' } }));
	it("attachment; filename*= UTF-8''%e2%82%ac%20rates", () =>
		expect(parse("attachment; filename*= UTF-8''%e2%82%ac%20rates").parameters.filename).toBe('€ rates'));
	it('where both stand, filename* counts', () =>
		expect(parse(`attachment; filename="EURO rates"; filename*=utf-8''%e2%82%ac%20rates`).parameters.filename).toBe('€ rates'));
});

describe('what we write', () => {
	it('a file inside a document keeps its own kind', () => {
		expect(attachmentDisposition('readings.csv')).toBe('attachment; filename=readings.csv');
		expect(attachmentDisposition('gauge §.txt')).toContain("filename*=UTF-8''gauge%20%C2%A7.txt");
		expect(attachmentDisposition('../../etc/passwd')).toBe('attachment; filename=passwd');
	});
	it('a plain name as a token or quoted string', () => {
		expect(disposition('attachment', 'plans.pdf')).toBe('attachment; filename=plans.pdf');
		expect(disposition('inline', 'an example.pdf')).toBe('inline; filename="an example.pdf"');
	});
	it("the euro sign as in the examples of both RFCs, with a plain name beside it for old programs: €%20rates → UTF-8''%e2%82%ac%20rates", () => {
		expect(disposition('attachment', '€ rates.pdf').toLowerCase()).toBe(`attachment; filename="? rates.pdf"; filename*=utf-8''%e2%82%ac%20rates.pdf`);
	});
	it('quotation marks and backslashes cannot end the name early', () => {
		const field = disposition('attachment', 'say "no".pdf');
		expect(field).toBe('attachment; filename="say \\"no\\".pdf"');
		expect(parse(field).parameters.filename).toBe('say "no".pdf');
	});
	it('neither folders nor line breaks get into the field', () => {
		expect(savedName('../../etc/passwd')).toBe('passwd.pdf');
		expect(savedName('C:\\papers\\plans.PDF')).toBe('plans.PDF');
		expect(disposition('attachment', 'a\r\nSet-Cookie: b.pdf')).not.toMatch(/[\r\n]/);
		expect(savedName('\u202Efdp.exe')).toBe('fdp.exe.pdf');
		expect(savedName('')).toBe('document.pdf');
	});
	it('reads back as the same name, whatever the name', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 40 }), (name) => {
				expect(parse(disposition('attachment', name)).parameters.filename).toBe(savedName(name));
			})
		);
	});
});
