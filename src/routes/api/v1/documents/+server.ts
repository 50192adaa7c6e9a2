// GET lists documents with the counts of all filters, POST brings one in.
import type { RequestHandler } from './$types';
import { filterNames, filtersOf, orderOf, usualOrder } from '#core/documents/filters';
import { isOrderValue, listDocuments } from '$lib/server/documents/list';
import { documentJson, documentView } from '$lib/server/documents/view';
import { inFolders, staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { afterOf, cursorAfter } from '$lib/server/http/cursor';
import { ListQuery } from '$lib/server/documents/contract';
import { bringInStream, checkDone } from '$lib/server/intake/bring-in';
import { withUpload } from '$lib/server/intake/multipart';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(ListQuery, { coerce: true });
/** How long an answer waits for the check, ms; after that the condition is “checking”. */
export const _checkWait = 15_000;

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const params = event.url.searchParams;
	const given = Object.fromEntries(
		[...new Set(params.keys())].map((name) => [name, (filterNames as readonly string[]).includes(name) ? params.getAll(name) : params.get(name)])
	);
	const { cursor, limit = 50, q, order, aside } = checked(checkQuery, given);
	const within = event.locals.caller.token?.folders;
	const wanted = order === 'newest' ? null : orderOf(order ?? null);
	const { by, down } = wanted ?? usualOrder(Boolean(q?.trim()));
	const named = `${down ? '-' : ''}${by}`;
	const list = await listDocuments({
		q,
		filters: filtersOf(params),
		order: { by, down },
		aside,
		limit,
		after: afterOf(cursor, named, (value) => isOrderValue(by, value)),
		within
	});
	const items = list.items.map(({ slug, title, folder, topics, language, pages, bytes, sha256, edition, createdAt, condition, door, placements, id }) => ({
		id,
		slug,
		title,
		folder,
		topics,
		language,
		pages,
		bytes,
		sha256,
		edition,
		createdAt,
		condition: { status: condition.status, findings: condition.findings.map(({ code, text }) => ({ code, text })) },
		door,
		placements
	}));
	const next = list.next && cursorAfter(named, list.next);
	const counts = Object.fromEntries(filterNames.map((name) => [name, Object.fromEntries(list.counts[name].map((c) => [c.value, c.count]))]));
	return answer({ items, next, counts: { ...counts, total: list.total, all: list.all } });
});

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const made = await withUpload(event.request, ({ fileName, stream, fields }) =>
		bringInStream(stream, fileName, id, () => {
			inFolders(event, fields.folder?.trim() ?? '');
			return { title: fields.title, folder: fields.folder };
		})
	);
	await checkDone(made.edition, _checkWait);
	// made just now
	return answer(documentJson((await documentView(made.slug))!), 201);
});
