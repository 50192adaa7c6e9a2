// The words of pages: in the order in which they are read, and with their line ends.
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { inReadingOrder } from '#core/reading/order';

type TextPart = Awaited<ReturnType<PDFPageProxy['getTextContent']>>;

/** The document, whose pages give their text in the order in which it is read, each page's in one part. */
export function inOrder(pdf: PDFDocumentProxy): PDFDocumentProxy {
	const known = new WeakSet<PDFPageProxy>();
	const get = pdf.getPage.bind(pdf);
	pdf.getPage = async (number) => {
		const page = await get(number);
		if (known.has(page)) return page;
		known.add(page);
		const stream = page.streamTextContent.bind(page);
		page.streamTextContent = (options) => {
			let whole: TextPart | undefined;
			return (stream(options) as ReadableStream<TextPart>).pipeThrough(
				new TransformStream<TextPart, TextPart>({
					transform(part) {
						if (!whole) whole = part;
						else {
							whole.items.push(...part.items);
							Object.assign(whole.styles, part.styles);
						}
					},
					flush(out) {
						if (whole) out.enqueue({ ...whole, items: inReadingOrder(whole.items) });
					}
				})
			);
		};
		return page;
	};
	return pdf;
}

/** A page's words with its line ends, and where in them a place stands that the finder counted without line ends. */
export async function textOf(pdf: PDFDocumentProxy, page: number): Promise<{ text: string; at: (place: number) => number }> {
	const { items } = await (await pdf.getPage(page)).getTextContent({ disableNormalization: true });
	const ends: number[] = [];
	let [text, bare] = ['', 0];
	for (const item of items) {
		if (!('str' in item)) continue;
		text += item.str;
		bare += item.str.length;
		if (!item.hasEOL) continue;
		text += '\n';
		ends.push(bare);
	}
	return { text, at: (place) => place + ends.filter((end) => end <= place).length };
}
