// pdf.js and its viewer as one file: the one is evaluated first, and the other looks for it under a global name.
export { pdfjs } from './pdfjs-global';
export * as viewer from 'pdfjs-dist/web/pdf_viewer.mjs';
