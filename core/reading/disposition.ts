// Content-Disposition: under which name a copy is saved. RFC 6266 and RFC 8187, written by the package content-disposition.
import { create } from 'content-disposition';
import { baseName } from '../documents/address';

/**
 * The field for a file shown in place or saved, under its own name; a name without .pdf gets it.
 * `disposition('attachment', '€ rates.pdf')` → `attachment; filename="? rates.pdf"; filename*=UTF-8''%E2%82%AC%20rates.pdf`.
 */
export function disposition(type: 'inline' | 'attachment', fileName: string): string {
	return create(savedName(fileName), { type });
}

/** The field for a file that travels inside a document: saved under its own name, whatever kind it is. */
export const attachmentDisposition = (fileName: string): string => create(baseName(fileName) || 'attachment', { type: 'attachment' });

/** The name a copy is saved under: no folders, no control characters, ends in .pdf. */
export function savedName(fileName: string): string {
	const name = baseName(fileName) || 'document';
	return /\.pdf$/i.test(name) ? name : `${name}.pdf`;
}
