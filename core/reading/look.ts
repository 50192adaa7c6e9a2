// Pictures of pages that stand beside what is said of a document: to look at, not to read by.

/** The widest of them, px. A page of A4 has 160 px for some eighty letters in a line: they cannot be read. */
export const lookPicture = 160;
/** So many of a document's pages are shown on its page. */
const mostShown = 12;

/** The pages of a document of which its page shows pictures: none where the cover shows all there is. */
export const pagesToLook = (pages: number): number[] => (pages < 2 ? [] : Array.from({ length: Math.min(pages, mostShown) }, (_, i) => i + 1));
