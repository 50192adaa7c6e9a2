import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { documentAttributes, elementMarkup, frameEvents, listAttributes } from './elements';

const script = readFileSync('static/ianua-document.js', 'utf8');
const types = readFileSync('static/ianua-document.d.ts', 'utf8');
const written = readFileSync('docs/embedding.md', 'utf8');
const names = (list: typeof documentAttributes) => list.map(([name]) => name).sort();

describe('the elements for other websites', () => {
	it('have the attributes that the script looks at, and no others', () => {
		const looked = [...script.matchAll(/observedAttributes = \[([^\]]*)\]/g)].map((m) => m[1]!.match(/[a-z]+/g)!.sort());
		// the word that closes is asked for when something opens
		expect(looked).toEqual([names(documentAttributes).filter((name) => name !== 'close'), names(listAttributes)]);
		expect(script).toContain("getAttribute('close')");
	});
	it('have them in their types too', () => {
		const typed = [...types.matchAll(/interface Ianua(?:Document|List)Attributes \{([\s\S]*?)\n\}/g)].map((m) =>
			[...m[1]!.matchAll(/^\t([a-z]+)\??:/gm)].map(([, name]) => name).sort()
		);
		expect(typed).toEqual([names(documentAttributes), names(listAttributes)]);
	});
	it('come in a script of under four kilobytes, as the page about them says', () => expect(gzipSync(script).length).toBeLessThan(4000));
	it('are written down whole', () => {
		for (const [name] of [...documentAttributes, ...listAttributes, ...frameEvents]) expect(written, name).toContain(`\`${name}\``);
		for (const [name] of frameEvents) expect(types).toContain(name);
	});
	it('are written as they stand on a page, whatever a title has in it', () => {
		const shown = { tag: 'ianua-document', attributes: { src: 'https://a.example/d/b', words: '"A" & <b>' }, inside: { href: 'https://a.example/d/b', words: '<i>' } } as const; // prettier-ignore
		expect(elementMarkup(shown)).toBe(
			'<ianua-document src="https://a.example/d/b" words="&quot;A&quot; &amp; &lt;b&gt;"><a href="https://a.example/d/b">&lt;i&gt;</a></ianua-document>'
		);
	});
});
