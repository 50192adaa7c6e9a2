// Puts documents at the end of pages, and takes placements out.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { PlacementsGiven, PlacementsTaken } from '$lib/server/placing/places-contract';
import { putOnPages, takeFromPages } from '$lib/server/placing/put';
import { compile } from '$lib/server/validate';

const [checkGiven, checkTaken] = [compile(PlacementsGiven), compile(PlacementsTaken)];

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer(await putOnPages(await body(event, checkGiven), id), 201);
});

export const PATCH: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	await takeFromPages(await body(event, checkTaken), id);
	return answer({ ok: true });
});
