// the other half of pdf.js, which has no types of its own
declare module 'pdfjs-dist/legacy/build/pdf.worker.mjs';
