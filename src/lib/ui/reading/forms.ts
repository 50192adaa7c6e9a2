// Fields of a document that can be filled in: their names are their labels, what is written is kept until it is saved, and leaving warns.
import type { PDFDocumentProxy } from 'pdfjs-dist';
import type { EventBus } from './pdfjs-private';

/** 'applicant_name' → 'applicant name': the name of a field, as far as it is words. */
export const labelOf = (name: string): string =>
	name
		.replace(/\[\d+\]/g, '')
		.split('.')
		.at(-1)!
		.replace(/[_-]+/g, ' ')
		.replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
		.trim();

/** The fields of a document that is open in a viewer. */
export class Forms {
	readonly #pdf: PDFDocumentProxy;

	/** `tell` hears when something was written that is not saved, and when that is over. */
	constructor(pdf: PDFDocumentProxy, container: HTMLElement, bus: EventBus, tell: (unsaved: boolean) => void, ended: AbortSignal) {
		this.#pdf = pdf;
		// where only pictures of the pages come there are no fields
		// the library's types know of no listener, though it is what these are for
		const storage = pdf.annotationStorage as unknown as { onSetModified: () => void; onResetModified: () => void } | undefined;
		if (!storage) return;
		storage.onSetModified = () => tell(true);
		storage.onResetModified = () => tell(false);
		const named = () => {
			for (const field of container.querySelectorAll<HTMLInputElement>('.annotationLayer :is(input, select, textarea):not([aria-label])')) {
				const said = field.closest('section')?.title || labelOf(field.name);
				if (said) field.setAttribute('aria-label', said);
			}
		};
		bus.on('annotationlayerrendered', named, { signal: ended });
	}

	/** The file with what was written in it; nothing counts as unsaved then. */
	async save(): Promise<Blob> {
		const bytes = await this.#pdf.saveDocument();
		return new Blob([new Uint8Array(bytes)], { type: 'application/pdf' });
	}
}
