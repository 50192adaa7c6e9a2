// What the reading room uses of pdf.js beyond what it offers is still there. What it does is tried in tests/browser/reading.spec.ts.
import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { privateNames } from './pdfjs-private';

const viewer = readFileSync('node_modules/pdfjs-dist/web/pdf_viewer.mjs', 'utf8');

it.each(Object.entries(privateNames))('the viewer of pdf.js has %s', (_, where) => expect(viewer).toMatch(where));
