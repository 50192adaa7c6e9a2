// What a frame on another website tells the page around it: that a document opened, on which page somebody is, that they save it, and how high it
// needs to be. The element (static/ianua-document.js) hands it on as events.

export interface FrameEvents {
	/** The first page is there. */
	opened: { readonly document: string; readonly pages: number };
	page: { readonly document: string; readonly page: number; readonly pages: number };
	saved: { readonly document: string };
	/** CSS px; of a frame that shows no document. */
	resize: { readonly height: number };
}

/** The page around this one: where the browser says it, else where this frame was first led to from. */
function around(): string | null {
	const { ancestorOrigins } = location as { ancestorOrigins?: DOMStringList };
	const origin = ancestorOrigins?.[0] ?? URL.parse(document.referrer)?.origin ?? null;
	return origin === 'null' ? null : origin;
}

/** Tells the page around; by itself a page tells nobody. Which websites may frame a document, and so hear this, the site says (`frame-ancestors`). */
export function tellAround<E extends keyof FrameEvents>(event: E, detail: FrameEvents[E]): void {
	const to = window.parent === window ? null : around();
	if (to !== null) window.parent.postMessage({ type: `ianua:${event}`, ...detail }, to);
}
