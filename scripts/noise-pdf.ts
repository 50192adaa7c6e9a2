// A large PDF for trying uploads and deliveries.
import PDFDocument from 'pdfkit';

/** A PDF of about so many bytes: one page and noise attached. */
export function noisePdf(bytes: number, text = 'Five megabytes'): Promise<Buffer> {
	const pdf = new PDFDocument({ compress: false });
	const chunks: Buffer[] = [];
	pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
	pdf.fontSize(30).text(text);
	const noise = Buffer.alloc(bytes);
	for (let i = 0, x = 1; i < bytes; i++) noise[i] = (x = (Math.imul(x, 1_103_515_245) + 12_345) >>> 0) >>> 16;
	pdf.file(noise, { name: 'noise.bin' });
	pdf.end();
	return new Promise((done) => pdf.on('end', () => done(Buffer.concat(chunks))));
}
