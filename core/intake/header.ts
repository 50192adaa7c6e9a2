// Is it a PDF at all, by its first bytes; and if not, what is it most likely.

/** Bytes from the start in which the header may stand: ISO 32000-1, Annex H, implementation note 13 (as readers accept it). */
export const headerWindow = 1024;

/**
 * The version that the header names ('1.7'), or null where there is no header within the window.
 * ISO 32000-1, 7.5.2: the first line is '%PDF-' followed by a version number.
 */
export function pdfVersion(start: Uint8Array): string | null {
	const text = latin1(start.subarray(0, headerWindow));
	const offset = text.indexOf('%PDF-');
	if (offset < 0) return null;
	return /^%PDF-(\d\.\d)/.exec(text.slice(offset))?.[1] ?? '';
}

const kinds: readonly (readonly [string, string])[] = [
	['PK\u0003\u0004', 'a zip or an office file'],
	['\u00d0\u00cf\u0011\u00e0', 'an office file'],
	['\u0089PNG', 'a PNG picture'],
	['\u00ff\u00d8\u00ff', 'a JPEG picture'],
	['GIF8', 'a GIF picture'],
	['RIFF', 'a picture or sound'],
	['II*\u0000', 'a TIFF picture'],
	['MM\u0000*', 'a TIFF picture'],
	['%!PS', 'a PostScript file'],
	['{\\rtf', 'a rich text file'],
	['MZ', 'a program'],
	['\u007fELF', 'a program']
];

/** What a file that is no PDF seems to be, with its article: 'a JPEG picture', 'a web page', 'another kind of file'. */
export function kindOf(start: Uint8Array): string {
	const text = latin1(start.subarray(0, 512));
	for (const [magic, words] of kinds) if (text.startsWith(magic)) return words;
	if (/^\s*(<!doctype html|<html|<head|<body)/i.test(text)) return 'a web page';
	if (/^\s*<\?xml|^\s*<svg/i.test(text)) return 'an XML file';
	if (text && !/[\u0000-\u0008\u000e-\u001f]/.test(text)) return 'a text file';
	return 'another kind of file';
}

function latin1(bytes: Uint8Array): string {
	let text = '';
	for (const b of bytes) text += String.fromCharCode(b);
	return text;
}
