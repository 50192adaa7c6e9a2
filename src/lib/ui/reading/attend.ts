// Gives a page that was gone to the focus, so that it is read on from there.
import { finished, pageView, type EventBus, type PdfViewer } from './pdfjs-private';

/** Gives what does so for a page: once its text is here, and if no tool got the focus meanwhile. The last page asked for holds. */
export function attending(viewer: PdfViewer, bus: EventBus, container: HTMLElement): (page: number) => void {
	let waiting: AbortController | undefined;
	return (page) => {
		waiting?.abort();
		const { signal } = (waiting = new AbortController());
		// pages of the document, which all have a view
		const view = pageView(viewer, page)!;
		const focus = () => view.div.querySelector<HTMLElement>('.textLayer')?.focus({ preventScroll: true });
		if (view.renderingState === finished) {
			focus();
			return;
		}
		const heard = ({ pageNumber }: { pageNumber: number }) => {
			if (pageNumber !== page) return;
			waiting?.abort();
			const active = document.activeElement;
			if (active === document.body || container.contains(active)) focus();
		};
		bus.on('textlayerrendered', heard, { signal });
	};
}
