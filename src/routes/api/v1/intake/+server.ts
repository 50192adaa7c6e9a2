// The intake: GET gives the tray, POST and OPTIONS begin an upload (tus 1.0), PATCH stops some, DELETE clears what is finished.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { IntakeStop } from '$lib/server/intake/contract';
import { answerTus } from '$lib/server/intake/tus';
import { clearTray, stopIntake, trayOf } from '$lib/server/intake/tray';
import { compile } from '$lib/server/validate';

const checkStop = compile(IntakeStop);

export const GET: RequestHandler = route(async (event) => answer({ items: await trayOf(staff(event).id), next: null }));
export const POST: RequestHandler = route(async (event) => answerTus(event.request, staff(event)));
export const OPTIONS: RequestHandler = route(async (event) => answerTus(event.request, staff(event)));
export const PATCH: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	await stopIntake(id, (await body(event, checkStop)).stop);
	return answer({ ok: true });
});
export const DELETE: RequestHandler = route(async (event) => {
	await clearTray(staff(event).id);
	return answer({ ok: true });
});
