// The QR code that leads to a page, as SVG or PNG.
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { turnAway } from '$lib/server/http/page';
import { qrPng, qrSvg } from '$lib/server/placing/qr';
import { pageDraft } from '$lib/server/placing/views';
import { settings } from '$lib/server/settings';

export const GET: RequestHandler = async (event) => {
	staff(event);
	const { params, url } = event;
	const { path } = await pageDraft(params.id).catch(turnAway);
	const address = settings().IANUA_ORIGIN + path;
	const save: Record<string, string> = url.searchParams.has('save')
		? { 'content-disposition': `attachment; filename="${path.slice(1).replaceAll('/', '-') || 'front'}-qr.${params.kind}"` }
		: {};
	if (params.kind === 'svg') return new Response(await qrSvg(address), { headers: { 'content-type': 'image/svg+xml', ...save } });
	if (params.kind === 'png')
		return new Response(new Uint8Array(await qrPng(address)), {
			headers: { 'content-type': 'image/png', ...save }
		});
	error(404, { code: 'not-found', message: 'There is SVG and PNG.' });
};
