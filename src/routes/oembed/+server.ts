// oEmbed 1.0 (oembed.com): what another website needs to show a document, for what a visitor may read.
import type { RequestHandler } from './$types';
import { canBeShown } from '#core/documents/edition';
import { decide, visitor } from '#core/access/decide';
import { oEmbed, oEmbedXml } from '#core/placing/outside';
import { defaultsOf } from '#core/placing/placement';
import { resolve } from '$lib/server/reading/resolve';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

const plain = (status: number, words: string) =>
	new Response(`${words}\n`, { status, headers: { 'content-type': 'text/plain; charset=utf-8', 'access-control-allow-origin': '*' } });

export const GET: RequestHandler = async ({ url }) => {
	const { searchParams } = url;
	const format = searchParams.get('format') ?? 'json';
	// oEmbed 1.0, 2.3.4: 501 for a format that is not offered, 404 for an address without an answer, 401 for what is private
	if (format !== 'json' && format !== 'xml') return plain(501, 'There is JSON and XML.');
	let asked: URL;
	try {
		asked = new URL(searchParams.get('url') ?? '');
	} catch {
		return plain(404, 'There is nothing to embed at that address.');
	}
	const slug = settings().origins.includes(asked.origin) ? /^\/(?:d|embed)\/([a-z0-9-]+)(?:\/read)?\/?$/.exec(asked.pathname)?.[1] : null;
	const found = slug ? await resolve(slug) : null;
	const decision = found && decide(visitor, found.thing, 'read', Date.now());
	const code = decision?.reasons[0].code;
	if (!found || found.gone || !canBeShown(found.edition) || code === 'shut' || code === 'set-aside')
		return plain(404, 'There is nothing to embed at that address.');
	if (!decision?.allowed) return plain(401, 'That is not open to everyone.');
	const bound = (name: string) => {
		const n = Number(searchParams.get(name));
		return Number.isInteger(n) && n > 0 ? n : undefined;
	};
	const { name, placing } = await site();
	const [size] = found.edition.sizes;
	const answer = oEmbed(
		{ origin: settings().IANUA_ORIGIN, slug: found.slug, title: found.title, shape: size ?? { width: 210, height: 297 }, site: name },
		{ maxwidth: bound('maxwidth'), maxheight: bound('maxheight') },
		defaultsOf('frame', placing ?? {})
	);
	return format === 'json'
		? new Response(JSON.stringify(answer), { headers: { 'content-type': 'application/json; charset=utf-8', 'access-control-allow-origin': '*' } })
		: new Response(oEmbedXml(answer), { headers: { 'content-type': 'text/xml; charset=utf-8', 'access-control-allow-origin': '*' } });
};
