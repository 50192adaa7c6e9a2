// A press in a preview leads on as the same person: to the draft of another page, else to the real thing with its door tried for them.

/** Whom a preview is for, and the pages of the site by their paths. */
export interface Previewed {
	readonly as: string;
	readonly pages: Readonly<Record<string, string>>;
	/** It stands in a frame of a screen's width. */
	readonly framed: boolean;
}

/** Where a press on an address of the site leads from a preview; null where it stays on the page that is previewed. */
export function leadsOn(to: URL, here: URL, { as, pages, framed }: Previewed): string | null {
	// narrowing a list, or a place on the same page
	if (to.pathname === here.pathname) return null;
	const id = pages[to.pathname];
	if (id !== undefined) return `/desk/pages/${id}/preview?${new URLSearchParams({ as, ...(framed ? { on: 'wide', bare: '' } : {}) }).toString()}`;
	return as === 'staff' ? `${to.pathname}${to.search}${to.hash}` : `/desk/try?${new URLSearchParams({ path: to.pathname, as }).toString()}`;
}

/** Holds what is pressed within an element. */
export function stay(previewed: () => Previewed): (element: HTMLElement) => () => void {
	const lead = (event: Event, address: string) => {
		const to = new URL(address, location.href);
		const on = to.origin === location.origin ? leadsOn(to, new URL(location.href), previewed()) : to.href;
		if (on === null) return;
		event.preventDefault();
		event.stopPropagation();
		// what is no draft is looked at beside it, so that one is back by closing it
		if (on.startsWith('/desk/pages/')) location.assign(on);
		else open(on, '_blank', 'noopener');
	};
	return (element) => {
		const ended = new AbortController();
		const options = { capture: true, signal: ended.signal };
		element.addEventListener(
			'click',
			(event) => {
				const link = (event.target as Element | null)?.closest('a');
				if (link?.href) lead(event, link.href);
			},
			options
		);
		element.addEventListener('submit', (event) => lead(event, (event.target as HTMLFormElement).action), options);
		return () => ended.abort();
	};
}
