// The reading frame for other websites. A site that may not frame gets a plain link in its place.
import type { PageServerLoad } from './$types';
import { mayFrame } from '#core/placing/outside';
import { askedColours } from '#core/site/look';
import { enterRoom } from '$lib/server/reading/room';
import { outsideMark } from '$lib/server/reading/record';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

export const load: PageServerLoad = async (event) => {
	const { slug } = event.params;
	const framer = originOf(event.request.headers.get('referer'));
	const outside = framer !== null && !settings().origins.includes(framer);
	const { framers = [] } = await site();
	event.locals.framing = { by: outside ? framer : null, allowed: !outside || mayFrame(framer, framers) };
	const colours = askedColours((name) => event.url.searchParams.get(name));
	if (!event.locals.framing.allowed) return { link: `${settings().IANUA_ORIGIN}/d/${slug}`, room: null, colours };
	const from = event.url.searchParams.get('from') ?? (outside ? outsideMark(new URL(framer).host) : null);
	return { link: null, room: await enterRoom(event, slug, 'outside', from), colours };
};

function originOf(referer: string | null): string | null {
	try {
		return referer ? new URL(referer).origin : null;
	} catch {
		return null;
	}
}
