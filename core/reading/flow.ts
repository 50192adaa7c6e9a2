// The reading text of a page that carries no tags: its lines, as they lie on the paper, put into the order in which they are read. Columns are
// read one after the other, tables row by row, running heads and page numbers are left out, hyphens at the ends of lines joined. All lengths are in
// points from the upper left corner of the page.

export interface FlowLine {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
	readonly text: string;
}

export interface FlowPage {
	readonly page: number;
	readonly width: number;
	readonly height: number;
	readonly lines: readonly FlowLine[];
}

/** A piece of reading text. Headings have levels 2 to 4: the first is the document's title. */
export type Block =
	| { readonly kind: 'heading'; readonly level: 2 | 3 | 4; readonly text: string }
	| { readonly kind: 'paragraph'; readonly text: string }
	| { readonly kind: 'item'; readonly text: string }
	| { readonly kind: 'table'; readonly rows: readonly (readonly string[])[]; readonly head: boolean }
	/** A picture, by what is said of it for those who do not see it. */
	| { readonly kind: 'picture'; readonly text: string };

export interface PageText {
	readonly page: number;
	readonly blocks: readonly Block[];
}

const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
const right = (line: FlowLine) => line.x + line.width;
const bottom = (line: FlowLine) => line.y + line.height;
const centre = (line: FlowLine) => line.y + line.height / 2;

/** The height of most letters: of the lines of a document, by how much is written in each height. */
export function bodyHeight(pages: readonly FlowPage[]): number {
	const letters = new Map<number, number>();
	for (const { lines } of pages)
		for (const { height, text } of lines) {
			const rounded = Math.round(height * 2) / 2;
			letters.set(rounded, (letters.get(rounded) ?? 0) + text.length);
		}
	return [...letters].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
}

/** Share of a page’s height above and below in which running heads and page numbers stand. */
const margin = 0.12;
const isNumber = (text: string) =>
	/^[\s–—\-[\](|]*(?:\p{L}{0,6}\.?\s*)?(?:\d{1,4}|[ivxlc]{1,7})(?:\s*(?:\/|of|von|de|z|من)\s*\d{1,4})?[\s–—\-[\])|]*$/iu.test(text);
/** What a running head says, whatever page it is on: figures do not count. */
const sameOnPages = (text: string) => text.replace(/\d+/g, '#').replace(/\s+/g, ' ').trim().toLowerCase();

/**
 * Lines without what stands at the head or foot of page after page. What comes back on three pages, or on half of fewer, within two
 * hundredths of the page's height, is one; a number alone at the edge is one always.
 */
export function withoutRunningHeads(pages: readonly FlowPage[]): FlowPage[] {
	const atEdge = (line: FlowLine, { height }: FlowPage) => bottom(line) < height * margin || line.y > height * (1 - margin);
	const seen = new Map<string, { page: number; y: number }[]>();
	for (const page of pages)
		for (const line of page.lines)
			if (atEdge(line, page)) {
				const key = sameOnPages(line.text);
				seen.set(key, [...(seen.get(key) ?? []), { page: page.page, y: line.y / page.height }]);
			}
	const most = Math.min(3, Math.max(2, Math.ceil(pages.length / 2)));
	const returns = (line: FlowLine, { page, height }: FlowPage) =>
		new Set((seen.get(sameOnPages(line.text)) ?? []).filter((at) => at.page === page || Math.abs(at.y - line.y / height) < 0.02).map((at) => at.page)).size >=
		most;
	return pages.map((page) => {
		const lines = page.lines.filter((line) => !atEdge(line, page) || !(isNumber(line.text) || returns(line, page)));
		// a page that says nothing else says that
		return { ...page, lines: lines.length ? lines : page.lines };
	});
}

const fromRight = /[\p{Script=Arabic}\p{Script=Hebrew}]/gu;
/** Whether most of what is written on it is written from right to left. */
const isFromRight = (lines: readonly FlowLine[]): boolean => {
	const text = lines.map((line) => line.text).join('');
	return (text.match(fromRight)?.length ?? 0) * 2 > (text.match(/\p{L}/gu)?.length ?? 0);
};

/** Where nothing is written from top to bottom, between lines: the middles of gaps of at least `least`. */
function guttersOf(lines: readonly FlowLine[], least: number): number[] {
	const sorted = [...lines].sort((a, b) => a.x - b.x);
	const gutters: number[] = [];
	let reach = -Infinity;
	for (const line of sorted) {
		if (reach !== -Infinity && line.x - reach >= least) gutters.push((line.x + reach) / 2);
		reach = Math.max(reach, right(line));
	}
	return gutters;
}

/** Lines beside each other, as rows of cells; `text` of each row. */
interface Rows {
	readonly rows: readonly (readonly string[])[];
}

/** Lines that are read one after the other, or a table. */
type Piece = { readonly lines: readonly FlowLine[] } | Rows;

const isTable = (piece: Piece): piece is Rows => 'rows' in piece;

/** Whether columns are those of a table: their lines stand beside each other and fill them little. */
function standsInRows(columns: readonly (readonly FlowLine[])[], height: number): boolean {
	const [first = [], ...others] = columns;
	const rest = others.flat();
	const beside = rest.filter((line) => first.some((one) => Math.abs(centre(one) - centre(line)) < height * 0.35)).length / Math.max(1, rest.length);
	const fill = columns.map((column) => {
		const widest = Math.max(...column.map((line) => line.width));
		return column.reduce((sum, line) => sum + line.width / widest, 0) / column.length;
	});
	const letters = columns.flat().reduce((sum, line) => sum + line.text.length, 0) / columns.flat().length;
	// prose on a grid of lines stands beside each other too, but fills its columns
	return beside > 0.6 && (letters < 22 || fill.some((f) => f < 0.6) || columns.length > 3);
}

/** Rows of a table; what has nothing in the first column goes on the row above. */
function rowsOf(columns: readonly (readonly FlowLine[])[], height: number): string[][] {
	const lines = columns.flatMap((column, index) => column.map((line) => ({ line, index }))).sort((a, b) => centre(a.line) - centre(b.line));
	const rows: { at: number; cells: string[] }[] = [];
	for (const { line, index } of lines) {
		let row = rows.at(-1);
		if (!row || centre(line) - row.at > height * 0.6) {
			row = { at: centre(line), cells: columns.map(() => '') };
			rows.push(row);
		}
		row.cells[index] = joined([row.cells[index]!, line.text]);
	}
	const out: string[][] = [];
	for (const { cells } of rows) {
		const above = out.at(-1);
		if (cells[0] || !above) out.push(cells);
		else cells.forEach((cell, i) => (above[i] = joined([above[i]!, cell])));
	}
	return out;
}

/** Lines of a page in the order in which they are read. */
function inOrder(lines: readonly FlowLine[], depth = 0): Piece[] {
	const byPlace = [...lines].sort((a, b) => (Math.abs(centre(a) - centre(b)) < Math.min(a.height, b.height) * 0.4 ? a.x - b.x : a.y - b.y));
	if (lines.length < 4 || depth > 6) return [{ lines: byPlace }];
	const height = middle(lines.map((line) => line.height));
	const [from, until] = [Math.min(...lines.map((line) => line.x)), Math.max(...lines.map(right))];
	const isWide = (line: FlowLine) => line.width > (until - from) * 0.62;
	const bands: FlowLine[][] = [];
	let [reached, afterHeading] = [-Infinity, false];
	for (const line of byPlace) {
		const band = bands.at(-1);
		// what stands beside each other ends with a line across the whole, a space across the whole, and a heading that has nothing beside it, which stands by itself
		const alone =
			line.height > height * 1.14 && line.y >= reached && !lines.some((other) => other !== line && Math.abs(centre(other) - centre(line)) < line.height / 2);
		if (!band || isWide(band[0]!) !== isWide(line) || line.y - reached > height * 1.2 || alone || afterHeading) bands.push([line]);
		else band.push(line);
		reached = Math.max(reached, bottom(line));
		afterHeading = alone;
	}
	const pieces: Piece[] = [];
	const plain: FlowLine[] = [];
	const settle = () => {
		if (plain.length) pieces.push({ lines: plain.splice(0) });
	};
	for (const band of bands) {
		const gutters = isWide(band[0]!) || band.length < 4 ? [] : guttersOf(band, Math.max(6, height * 0.8));
		const columns = [...gutters, Infinity].map((gutter, i) => band.filter((line) => line.x < gutter && line.x >= (gutters[i - 1] ?? -Infinity)));
		if (columns.length < 2 || columns.filter((column) => column.length > 1).length < 2) {
			plain.push(...band);
			continue;
		}
		settle();
		if (standsInRows(columns, height)) pieces.push({ rows: rowsOf(isFromRight(band) ? [...columns].reverse() : columns, height) });
		else for (const column of isFromRight(band) ? [...columns].reverse() : columns) pieces.push(...inOrder(column, depth + 1));
	}
	settle();
	return pieces;
}

/** Pieces of text put together: a hyphen at the end of one goes where a word goes on in the next. */
export function joined(parts: readonly string[]): string {
	return parts
		.map((part) => part.trim())
		.filter(Boolean)
		.reduce((text, part) => {
			if (!text) return part;
			if (/\p{L}[\u00ad‐-]$/u.test(text) && /^\p{Ll}/u.test(part)) return text.slice(0, -1) + part;
			// Chinese, Japanese and Thai are written without spaces between words
			return /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}、。]$/u.test(text) &&
				/^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u.test(part)
				? text + part
				: `${text} ${part}`;
		}, '');
}

const bullet = /^(?:[•◦▪■●○‣⁃∙·*–—-]|\(?(?:\d{1,3}|[a-z])[.)])\s+(?=\S)/u;
const endsSentence = (text: string) => /[.!?:;…。؟»”")\]]$/u.test(text.trim());
/** Longest heading, in characters. */
const longestHeading = 140;

/** Blocks of lines that are read one after the other. */
function blocksOf(lines: readonly FlowLine[], body: number): Block[] {
	const [from, until] = [Math.min(...lines.map((line) => line.x)), Math.max(...lines.map(right))];
	const gaps = lines.slice(1).flatMap((line, i) => (line.y > lines[i]!.y ? [line.y - bottom(lines[i]!)] : []));
	const usual = Math.max(0, middle(gaps));
	const groups: FlowLine[][] = [];
	for (const line of lines) {
		const group = groups.at(-1) ?? [];
		const last = group.at(-1);
		const sameRow = last && Math.abs(centre(last) - centre(line)) < Math.min(last.height, line.height) * 0.4;
		const begins =
			!last ||
			(!sameRow &&
				(line.y - bottom(last) > usual + body * 0.35 ||
					line.y < last.y ||
					Math.abs(line.height - last.height) > Math.max(line.height, last.height) * 0.12 ||
					bullet.test(line.text) ||
					(line.x - last.x > body * 0.8 && last.x - from < body * 0.5 && !bullet.test(group[0]?.text ?? '')) ||
					(right(last) < until - (until - from) * 0.18 && endsSentence(last.text))));
		if (begins) groups.push([line]);
		else group.push(line);
	}
	return groups.map((group): Block => {
		const text = joined(group.map((line) => line.text));
		const height = middle(group.map((line) => line.height));
		if (height > body * 1.14 && text.length <= longestHeading && /\p{L}/u.test(text))
			return { kind: 'heading', level: height > body * 1.75 ? 2 : height > body * 1.35 ? 3 : 4, text };
		return bullet.test(text) ? { kind: 'item', text: /^\(?(?:\d|[a-z][.)])/u.test(text) ? text : text.replace(bullet, '') } : { kind: 'paragraph', text };
	});
}

/** The blocks of a column after those before it: a paragraph that was broken off goes on in it. */
function goingOn(before: readonly Block[], next: readonly Block[]): Block[] {
	const [last, first] = [before.at(-1), next[0]];
	return last?.kind === 'paragraph' && first?.kind === 'paragraph' && !endsSentence(last.text) && /^\p{Ll}/u.test(first.text)
		? [...before.slice(0, -1), { kind: 'paragraph', text: joined([last.text, first.text]) }, ...next.slice(1)]
		: [...before, ...next];
}

/**
 * The reading text of pages that follow each other; running heads are told by comparing them. `body` is the height of most of the document's
 * letters. A word that goes on over the page is joined on the first.
 */
export function flow(pages: readonly FlowPage[], body = bodyHeight(pages)): PageText[] {
	return withoutRunningHeads(pages).map(({ page, lines }) => ({
		page,
		blocks: inOrder(lines)
			.map((piece): Block[] => (isTable(piece) ? [{ kind: 'table', rows: piece.rows, head: false }] : piece.lines.length ? blocksOf(piece.lines, body) : []))
			.reduce(goingOn, [])
	}));
}

/** The reading text as plain text: blocks apart by an empty line, cells by a tab. */
export const plainText = (blocks: readonly Block[]): string =>
	blocks
		.map((block) => (block.kind === 'table' ? block.rows.map((row) => row.join('\t')).join('\n') : block.kind === 'item' ? `- ${block.text}` : block.text))
		.join('\n\n');
