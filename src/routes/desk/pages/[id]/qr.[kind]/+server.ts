// The QR code that leads to a page, as SVG or PNG, with the quiet zone of four modules that ISO/IEC 18004 asks for (from memory).
import QRCode from 'qrcode';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { turnAway } from '$lib/server/http/page';
import { pageDraft } from '$lib/server/placing/views';
import { settings } from '$lib/server/settings';

const options = { margin: 4, errorCorrectionLevel: 'M', color: { dark: '#000000', light: '#ffffff' } } as const;

export const GET: RequestHandler = async (event) => {
	staff(event);
	const { params, url } = event;
	const { path } = await pageDraft(params.id).catch(turnAway);
	const address = settings().IANUA_ORIGIN + path;
	const save: Record<string, string> = url.searchParams.has('save')
		? { 'content-disposition': `attachment; filename="${path.slice(1).replaceAll('/', '-') || 'front'}-qr.${params.kind}"` }
		: {};
	if (params.kind === 'svg')
		return new Response(await QRCode.toString(address, { ...options, type: 'svg' }), { headers: { 'content-type': 'image/svg+xml', ...save } });
	if (params.kind === 'png')
		return new Response(new Uint8Array(await QRCode.toBuffer(address, { ...options, type: 'png', scale: 16 })), {
			headers: { 'content-type': 'image/png', ...save }
		});
	error(404, { code: 'not-found', message: 'There is SVG and PNG.' });
};
