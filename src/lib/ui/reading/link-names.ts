// Links inside a document are boxes over its words: each gets a name that says which page it leads to.
import type { PDFDocumentProxy } from 'pdfjs-dist';
import type { EventBus, PageView } from './pdfjs-private';

/** What a link's annotation says (ISO 32000-1, 12.5.6.5). */
interface LinkSaid {
	readonly id: string;
	readonly dest?: unknown;
}

/** The page that a destination leads to, counted from 1; null where it leads to none (ISO 32000-1, 12.3.2). */
export async function pageLedTo(pdf: PDFDocumentProxy, destination: unknown): Promise<number | null> {
	const explicit = (typeof destination === 'string' ? await pdf.getDestination(destination) : await destination) as unknown[] | null;
	const target = explicit?.[0];
	if (target === undefined || target === null) return null;
	return (typeof target === 'number' ? target : await pdf.getPageIndex(target as Parameters<PDFDocumentProxy['getPageIndex']>[0])) + 1;
}

/** Names the links of each page that is drawn: `said` gives the words for a page's number. */
export function nameLinks(pdf: PDFDocumentProxy, bus: EventBus, said: (page: number) => string, ended: AbortSignal): void {
	const named = async ({ source }: { source: PageView }) => {
		const links = [...source.div.querySelectorAll<HTMLAnchorElement>('.annotationLayer [data-internal-link] > a:not([aria-label])')];
		if (!links.length) return;
		const page = await pdf.getPage(source.id);
		const all = new Map(((await page.getAnnotations({ intent: 'display' })) as LinkSaid[]).map((one) => [one.id, one]));
		for (const link of links) {
			const { dest } = all.get(link.dataset.elementId ?? '') ?? {};
			const to = dest === undefined ? null : await pageLedTo(pdf, dest).catch(() => null);
			if (to !== null) link.setAttribute('aria-label', said(to));
		}
	};
	// what cannot be read of a page keeps its links without a name: they lead where they lead
	bus.on('annotationlayerrendered', (event: { source: PageView }) => void named(event).catch(() => undefined), { signal: ended });
}
