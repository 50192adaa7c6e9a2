// Addresses as QR codes, with the quiet zone of four modules that ISO/IEC 18004 asks for (from memory).
import QRCode from 'qrcode';

const options = { margin: 4, errorCorrectionLevel: 'M', color: { dark: '#000000', light: '#ffffff' } } as const;

/** An address as a QR code: an SVG's text, or a PNG of 16 px a module. */
export function qrCode(address: string, kind: 'svg'): Promise<string>;
export function qrCode(address: string, kind: 'png'): Promise<Buffer>;
export function qrCode(address: string, kind: 'svg' | 'png'): Promise<string | Buffer> {
	return kind === 'svg' ? QRCode.toString(address, { ...options, type: 'svg' }) : QRCode.toBuffer(address, { ...options, type: 'png', scale: 16 });
}
