// Very many documents at once, rows only: to see and measure the documents room and find at their size. Their files are not there.
import { sql } from '#server/db/client';
import { newId } from '#server/id';
import { Random } from './random';

const nouns = [
	'lock',
	'weir',
	'sluice',
	'towpath',
	'bridge',
	'culvert',
	'basin',
	'aqueduct',
	'wharf',
	'reservoir',
	'paddle',
	'mooring',
	'embankment',
	'summit',
	'feeder',
	'gauge'
];
const acts = ['survey', 'notice', 'minutes', 'plan', 'report', 'guide', 'bulletin', 'drawing', 'estimate', 'record', 'letter', 'schedule'];
const folders = ['', 'Notices', 'Minutes', 'Surveys', 'Guides', 'Engineering', 'Archive/1990s', 'Archive/2000s'];
const topics = ['safety', 'boats', 'heritage', 'water', 'volunteers', 'planning', 'wildlife', 'finance'];
const languages = ['en', 'en', 'en', 'en-GB', 'de', 'fr', null];
/** Words that every text is full of; the languages' stemmings leave them out. */
const little = ['the', 'is', 'at', 'and', 'was', 'between', 'from', 'to', 'of', 'in', 'on', 'by'];
/** Words of a page of a report, and how many of them are little ones: about as in English prose. */
const [pageLength, littleShare] = [320, 0.45];

/**
 * The other words by the law of Zipf and Mandelbrot, frequency ~ 1 / (rank + 10), over 15,000 of them: the commonest stands on most
 * pages, the hundredth on every third, most on very few.
 */
function vocabulary(random: Random): () => string {
	const [size, shift] = [15_000, 10];
	const words = [...nouns, ...acts];
	for (let i = words.length; i < size; i++) words.push(`${random.pick(nouns)}${String.fromCharCode(97 + (i % 26))}${Math.floor(i / 26)}`);
	let sum = 0;
	const upTo = Float64Array.from(words, (_, i) => (sum += 1 / (i + 1 + shift)));
	return () => {
		const point = random.next() * sum;
		let [low, high] = [0, size - 1];
		while (low < high) {
			const middle = (low + high) >> 1;
			if (upTo[middle]! < point) low = middle + 1;
			else high = middle;
		}
		return words[low]!;
	};
}

export interface ManyOptions {
	readonly documents: number;
	/** Pages with words for each document. */
	readonly pages: number;
	readonly seed: number;
	readonly actor: string;
	readonly now: number;
}

/** Batches put in at the same time: PostgreSQL takes words apart in one process for each connection. */
const atOnce = 2;
/** From how many documents on the indexes of words are made at the end, all at once, in place of word by word. */
const atEnd = 20_000;

/** Takes the indexes of words away where very many pages come; gives what makes them again. */
async function withoutWordIndexes(documents: number): Promise<() => Promise<void>> {
	if (documents < atEnd) return () => Promise.resolve();
	const indexes = await sql()<{ name: string; definition: string }[]>`
		select indexname as name, indexdef as definition from pg_indexes where schemaname = 'public' and indexname in ('edition_page_words', 'document_text_words')`;
	for (const { name } of indexes) await sql().unsafe(`drop index ${name}`);
	return async () => {
		await Promise.all(
			indexes.map(({ definition }) =>
				sql().begin(async (tx) => {
					await tx`set local maintenance_work_mem = '1GB'`;
					await tx.unsafe(definition);
				})
			)
		);
	};
}

/** Puts the rows in and gives the addresses. The first `documents` numbers stand in the titles, so that each is findable. */
export async function makeMany({ documents, pages, seed, actor, now }: ManyOptions): Promise<string[]> {
	const random = new Random(seed);
	const next = () => random.next();
	const pick = <T>(list: readonly T[]): T => random.pick(list);
	const word = vocabulary(random);
	const slugs: string[] = [];
	const batch = 250;
	const s = sql();
	const again = await withoutWordIndexes(documents);
	/** Batches that are being put in, while the next one is thought up. */
	const under: Promise<void>[] = [];
	for (let first = 0; first < documents; first += batch) {
		const doors: object[] = [];
		const editions: object[] = [];
		const rows: object[] = [];
		const worded: object[] = [];
		for (let i = first; i < Math.min(documents, first + batch); i++) {
			const [id, editionId, doorId] = [newId(), newId(), newId()];
			const [noun, act] = [pick(nouns), pick(acts)];
			const count = next() < 0.3 ? 1 : Math.floor(1 + next() ** 3 * 400);
			const created = new Date(now - next() ** 2 * 900 * 86_400_000);
			const slug = `many-${seed}-${noun}-${act}-${i}`;
			const language = pick(languages);
			slugs.push(slug);
			doors.push({ id: doorId, position: pick(['shut', 'keyed', 'keyed', 'ajar', 'open', 'open']) });
			editions.push({
				id: editionId,
				document_id: id,
				number: 1,
				sha256: (i + seed * 1_000_003).toString(16).padStart(64, '0'),
				bytes: Math.floor(10_000 + next() * 5_000_000),
				file_name: `${noun}_${act}_${i}.pdf`,
				pages: count,
				facts: {
					version: '1.7',
					pages: count,
					sizes: [{ width: 595, height: 842, pages: count }],
					active: [],
					outline: [],
					attachments: [],
					text: 'yes',
					textPages: count
				},
				condition: pick(['sound', 'sound', 'sound', 'sound', 'look', 'refused']),
				findings: [],
				language,
				created_at: created
			});
			rows.push({
				id,
				slug,
				title: `The ${noun} ${act}, no. ${i}`,
				description: next() < 0.5 ? `About the ${pick(nouns)} and the ${pick(nouns)}.` : '',
				folder: pick(folders),
				topics: topics.filter(() => next() < 0.15),
				// what a third of them say says nothing else
				fields: i % 3 ? { department: ['Works', 'Boats', 'Towpath'][(i % 7) % 3] } : {},
				door_id: doorId,
				edition_id: editionId,
				created_at: created,
				created_by: next() < 0.8 ? actor : null
			});
			for (let page = 1; page <= pages; page++) {
				const words = Array.from({ length: pageLength }, () => (next() < littleShare ? pick(little) : word()));
				worded.push({ edition_id: editionId, page, body: words.join(' ') });
			}
		}
		const made = slugs.slice(first);
		const put = s.begin(async (tx) => {
			await tx`insert into door ${tx(doors as Record<string, string>[])}`;
			// postgres.js makes jsonb of objects itself
			await tx`insert into edition ${tx(editions as Record<string, string>[])}`;
			await tx`insert into document ${tx(rows as Record<string, string>[])}`;
			for (let from = 0; from < worded.length; from += 1000)
				await tx`insert into edition_page ${tx(worded.slice(from, from + 1000) as Record<string, string>[])}`;
			if (pages) await tx`select find_pages(id) from document where slug in ${tx(made)}`;
		});
		// a failure is met when it is waited for
		put.catch(() => {});
		under.push(put);
		if (under.length > atOnce) await under.shift();
	}
	await Promise.all(under);
	await again();
	await s`analyze document, edition, edition_page, document_text, door`;
	return slugs;
}
