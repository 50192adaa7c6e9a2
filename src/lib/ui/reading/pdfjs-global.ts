import * as pdfjs from 'pdfjs-dist';

(globalThis as { pdfjsLib?: unknown }).pdfjsLib = pdfjs;
export { pdfjs };
