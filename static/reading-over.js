// Reading over the page: a press on a link that asks for it (data-over) opens the reading room above the page, which stays where it
// was; closing, Escape and the way back return to it. Without this script such a link is an ordinary one.
(() => {
	if (window.ianuaReadingOver) return;
	window.ianuaReadingOver = true;
	const style = document.createElement('style');
	style.textContent = `dialog.reading-over{width:100vw;height:100dvh;max-width:none;max-height:none;margin:0 auto;padding:0;border:0;background:var(--ground)}
@media(min-width:900px){dialog.reading-over{width:calc(100vw - 80px);height:calc(100dvh - 48px);margin:24px auto}}
dialog.reading-over::backdrop{background:rgb(15 26 25/66%)}dialog.reading-over iframe{width:100%;height:100%;border:0;display:block}`;
	let dialog, pressed;
	const open = (href) => {
		if (!dialog) {
			dialog = document.createElement('dialog');
			dialog.className = 'reading-over';
			dialog.setAttribute('aria-label', 'Reading');
			dialog.addEventListener('cancel', (event) => {
				event.preventDefault();
				history.back();
			});
			document.head.append(style);
			document.body.append(dialog);
		}
		const frame = document.createElement('iframe');
		frame.title = 'Reading room';
		frame.src = href;
		dialog.replaceChildren(frame);
		dialog.showModal();
	};
	const close = () => {
		if (!dialog?.open) return;
		dialog.close();
		dialog.replaceChildren();
		pressed?.focus({ preventScroll: true });
	};
	addEventListener(
		'click',
		(event) => {
			const link = event.target instanceof Element ? event.target.closest('a[data-over]') : null;
			if (!link || event.button || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
			event.preventDefault();
			event.stopPropagation();
			pressed = link;
			const address = new URL(link.href);
			address.searchParams.set('over', '1');
			const href = address.pathname + address.search + address.hash;
			history.pushState({ ...history.state, readingOver: href }, '');
			open(href);
		},
		true
	);
	addEventListener('popstate', (event) => (event.state?.readingOver ? open(event.state.readingOver) : close()));
	addEventListener('message', (event) => {
		if (event.origin === location.origin && event.data === 'ianua-close' && dialog?.open) history.back();
	});
})();
