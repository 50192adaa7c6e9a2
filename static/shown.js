// Tells which placements came into view (at least half of one, for a second), each once for every time the page is opened. Nothing
// else is told. Pages tried or previewed by staff tell nothing.
(() => {
	if (window.ianuaShown || !('IntersectionObserver' in window)) return;
	window.ianuaShown = true;
	let told = new Set();
	const waiting = new Map();
	const addressOf = (element) => new URL(element.tagName === 'IFRAME' ? element.src : element.href, location.href);
	const seen = new IntersectionObserver(
		(entries) => {
			for (const { target, isIntersecting } of entries) {
				clearTimeout(waiting.get(target));
				waiting.delete(target);
				if (isIntersecting)
					waiting.set(
						target,
						setTimeout(() => tell(target), 1000)
					);
			}
		},
		{ threshold: 0.5 }
	);
	const tell = (target) => {
		seen.unobserve(target);
		waiting.delete(target);
		const url = addressOf(target);
		const from = url.searchParams.get('from');
		const slug = /^\/d\/([^/]+)/.exec(url.pathname)?.[1];
		if (!from || !slug || told.has(from) || document.visibilityState !== 'visible') return;
		told.add(from);
		navigator.sendBeacon(`/d/${slug}/read/told?from=${encodeURIComponent(from)}`, new Blob(['{"kind":"shown"}'], { type: 'application/json' }));
	};
	const look = () => {
		if (location.pathname.startsWith('/desk') || new URLSearchParams(location.search).has('try')) return;
		for (const element of document.querySelectorAll('main a[href^="/d/"][href*="from="], main iframe[src*="from="]')) seen.observe(element);
	};
	look();
	// moving to another page of the site keeps this script: what is put in later is looked at too
	let path = location.pathname;
	new MutationObserver(() => {
		if (location.pathname !== path) {
			path = location.pathname;
			told = new Set();
		}
		look();
	}).observe(document.body, { childList: true, subtree: true });
})();
