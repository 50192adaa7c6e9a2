// Entries as they happen, as server-sent events: one event for each, with the entry as JSON. What a browser missed while it was away
// it is told when it comes back (Last-Event-ID), as far as ten minutes.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { ledger } from '$lib/server/readership/ledger';

const lookMs = 1_500;
const minuteMs = 60_000;
/** Entries are committed a little after their time. */
const slackMs = 10_000;
/** A connection ends after this and the browser comes back by itself: whoever has been signed out meanwhile is not told any more. */
const longestMs = 30 * minuteMs;

export const GET: RequestHandler = route((event) => {
	staff(event);
	const before = Number(event.request.headers.get('last-event-id'));
	const begun = Date.now();
	let since = Number.isFinite(before) && before > begun - 10 * minuteMs ? before : begun - 5 * minuteMs;
	const told = new Set<string>();
	let timer: ReturnType<typeof setTimeout> | undefined;
	const encoder = new TextEncoder();
	const stream = new ReadableStream<Uint8Array>({
		start(controller) {
			const look = async () => {
				try {
					const { items } = await ledger({ from: new Date(since - slackMs), limit: 200, of: 'all' });
					let text = ': here\n\n';
					for (const item of items.reverse()) {
						if (told.has(item.id)) continue;
						told.add(item.id);
						text += `id: ${Date.parse(item.at)}\ndata: ${JSON.stringify(item)}\n\n`;
						since = Math.max(since, Date.parse(item.at));
					}
					if (told.size > 5_000) told.clear();
					controller.enqueue(encoder.encode(text));
					if (Date.now() - begun > longestMs) {
						controller.close();
						return;
					}
				} catch {
					controller.close();
					return;
				}
				timer = setTimeout(() => void look(), lookMs);
			};
			void look();
		},
		cancel: () => clearTimeout(timer)
	});
	return new Response(stream, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store, no-transform', 'x-accel-buffering': 'no' } });
});
