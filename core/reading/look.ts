// Pictures of pages that stand beside what is said of a document: to look at, not to read by.

/**
 * The widest that may be asked for, px. They come in the smallest width that pictures are kept in, 200 px: for some eighty letters in a line of A4 that
 * is less than three each, and they cannot be read.
 */
export const lookPicture = 160;
/** So many of a document's pages are shown on its page. */
const mostShown = 12;

/** The pages of a document of which its page shows pictures: none where the cover shows all there is. */
export const pagesToLook = (pages: number): number[] => (pages < 2 ? [] : Array.from({ length: Math.min(pages, mostShown) }, (_, i) => i + 1));
