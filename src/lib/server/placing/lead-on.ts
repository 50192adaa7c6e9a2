// Where no page stands: an address of an old website leads to its document for good; of others it is noted that they were asked for.
import { isHttpError, redirect, type RequestEvent } from '@sveltejs/kit';
import { formerPath, worthTelling } from '#core/placing/former-address';
import { enter } from '../http/page';
import { log } from '../log';
import { afterwards, evenly } from '../reading/afterwards';
import { isRobot } from '../reading/robots';
import { settings } from '../settings';
import { countFormer, countMissed, formerTarget } from './former';

/** The host of another website that led here; null where none did. */
function fromElsewhere({ request }: RequestEvent): string | null {
	const url = URL.parse(request.headers.get('referer') ?? '');
	return url && !settings().origins.includes(url.origin) ? url.host.slice(0, 200) : null;
}

/**
 * Leads on to the document whose former address was asked for: whoever may know of it is led there (301, RFC 9110 section 15.4.2), others are turned away
 * as at the document itself. Comes back where it is none.
 */
export async function leadOn(event: RequestEvent): Promise<void> {
	const path = formerPath(event.url.pathname + event.url.search);
	if (path === null) return;
	const begun = performance.now();
	const former = await formerTarget(path);
	const [from, robot] = [fromElsewhere(event), isRobot(event.request.headers.get('user-agent') ?? '')];
	const count = (doing: () => Promise<void>) => {
		if (!robot) afterwards(() => doing().catch((err: unknown) => log().warn({ err }, 'an old address was not counted')));
	};
	if (former === null) {
		if (worthTelling(path, from !== null)) count(() => countMissed(path, from));
		// as long as for one whose document is shut: nobody learns that there is one
		return evenly(begun);
	}
	const { found } = await enter(event, former.slug, 'see').catch((refusal: unknown) => {
		if (isHttpError(refusal, 404)) return { found: null };
		throw refusal;
	});
	if (!found) return;
	count(() => countFormer(former.by, from));
	redirect(301, `/d/${found.slug}`);
}
