// Addresses as QR codes, with the quiet zone of four modules that ISO/IEC 18004 asks for (from memory).
import QRCode from 'qrcode';

const options = { margin: 4, errorCorrectionLevel: 'M', color: { dark: '#000000', light: '#ffffff' } } as const;

/** Each is drawn once for those who look at a document's page: drawing takes more than a millisecond. */
const drawn = new Map<string, string>();
const mostDrawn = 2000;

/** An address as a QR code: an SVG's text. */
export async function qrSvg(address: string): Promise<string> {
	const known = drawn.get(address);
	if (known !== undefined) return known;
	const svg = await QRCode.toString(address, { ...options, type: 'svg' });
	if (drawn.size >= mostDrawn) drawn.clear();
	drawn.set(address, svg);
	return svg;
}

/** An address as a QR code: a PNG of 16 px a module. */
export const qrPng = (address: string): Promise<Buffer> => QRCode.toBuffer(address, { ...options, type: 'png', scale: 16 });
