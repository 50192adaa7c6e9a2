// Where an old website says that its files lie: its sitemap read (sitemaps.org, protocol 0.9), each file beside the document that has its name here.
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { Type, type Static } from '@sinclair/typebox';
import { XMLParser } from 'fast-xml-parser';
import { IanuaError } from '#core/errors';
import { nullable } from '#core/schema';
import { formerPath, worthTelling } from '#core/placing/former-address';
import { fetchBytes } from '../intake/fetch';
import { slugFor } from '../slug';
import { documentsNamed, leadsAlready } from './former';

/** Most bytes of one sitemap. The protocol allows five times as many; nobody else is answered while one is parsed. */
const mostBytes = 10 * 1024 * 1024;
/** Most sitemaps of an index that are read. */
const mostParts = 20;
/** So many of them are fetched at once. */
const atOnce = 4;
/** Most addresses that one list can be set with. */
const mostFiles = 5000;

const parser = new XMLParser({ ignoreAttributes: true, removeNSPrefix: true, isArray: (name) => name === 'url' || name === 'sitemap' });

export const SitemapGiven = Type.Object(
	{ url: Type.String({ maxLength: 2000, description: 'where the sitemap stands; packed (.gz) and indexes of sitemaps are read too' }) },
	{ additionalProperties: false }
);

interface Place {
	loc?: unknown;
}

/** The addresses that a sitemap names, and the sitemaps that an index names. Throws `not-valid` where it is neither. */
export function readSitemap(text: string): { addresses: string[]; sitemaps: string[] } {
	let read: { urlset?: { url?: Place[] } | ''; sitemapindex?: { sitemap?: Place[] } | '' };
	try {
		read = parser.parse(text) as typeof read;
	} catch {
		read = {};
	}
	if (read.urlset === undefined && read.sitemapindex === undefined) throw new IanuaError('not-valid', { detail: 'no sitemap stands at that address' });
	const places = (list: Place[] = []) => list.flatMap(({ loc }) => (typeof loc === 'string' ? [loc.trim()] : []));
	return { addresses: places((read.urlset || {}).url), sitemaps: places((read.sitemapindex || {}).sitemap) };
}

async function fetched(address: string): Promise<string> {
	const bytes = await fetchBytes(address, mostBytes);
	// packed as a file, whatever it is called (RFC 1952, 2.3.1)
	if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return bytes.toString('utf8');
	return promisify(gunzip)(bytes, { maxOutputLength: mostBytes }).then(
		(unpacked) => unpacked.toString('utf8'),
		() => {
			throw new IanuaError('not-valid', { detail: 'what stands there is packed, and cannot be unpacked' });
		}
	);
}

export const FilesElsewhere = Type.Object({
	items: Type.Array(Type.Object({ path: Type.String(), document: nullable(Type.String({ description: 'its slug; null where none has the name' })) }), {
		description: 'former addresses that lead nowhere yet'
	}),
	passedOver: Type.Integer({ description: 'addresses that are no document’s, or lead somewhere already' })
});
export type FilesElsewhere = Static<typeof FilesElsewhere>;

/** Reads the sitemap at an address, never in a private network. Throws the errors of fetching, and `not-valid`. */
export async function filesElsewhere(address: string): Promise<FilesElsewhere> {
	const first = readSitemap(await fetched(address));
	const all = [...first.addresses];
	const parts = first.sitemaps.slice(0, mostParts);
	for (let i = 0; i < parts.length; i += atOnce) {
		const texts = await Promise.all(parts.slice(i, i + atOnce).map(fetched));
		for (const text of texts) all.push(...readSitemap(text).addresses);
	}
	const paths = [...new Set(all.flatMap((text) => formerPath(text) ?? []))].filter((path) => worthTelling(path, false));
	const there = await leadsAlready(paths);
	const files = paths.filter((path) => !there.has(path)).slice(0, mostFiles);
	const slugs = files.map(slugOfFile);
	const named = await documentsNamed([...new Set(slugs)]);
	return { items: files.map((path, i) => ({ path, document: named.get(slugs[i]!) ?? null })), passedOver: all.length - files.length };
}

/** The slug that a file's name makes: `/files/A%20guide.pdf` → 'a-guide'. */
function slugOfFile(path: string): string {
	const name = path.replace(/\?.*$/, '').split('/').at(-1) ?? '';
	try {
		return slugFor(decodeURIComponent(name).replace(/\.[a-z]{3,4}$/i, ''), '-');
	} catch {
		return '-';
	}
}
