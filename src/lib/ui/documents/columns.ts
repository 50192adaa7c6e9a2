// The columns of the documents table: which there are, and which somebody chose, in their order.
import type { OrderName } from '#core/documents/filters';

export const columnNames = [
	'passage',
	'door',
	'placed',
	'edition',
	'folder',
	'topics',
	'pages',
	'size',
	'condition',
	'language',
	'brought',
	'by',
	'readers'
] as const;
export type ColumnName = (typeof columnNames)[number];

/** Words of the head, width in px, and what pressing the head orders by. */
export const columns: {
	readonly [C in ColumnName]: { readonly words: string; readonly width: number; readonly order: OrderName | null; readonly number?: boolean };
} = {
	passage: { words: 'Passage', width: 106, order: null },
	door: { words: 'Door', width: 172, order: 'door' },
	placed: { words: 'Placed', width: 118, order: 'placed' },
	edition: { words: 'Edition', width: 112, order: 'edition' },
	folder: { words: 'Folder', width: 130, order: 'folder' },
	topics: { words: 'Topics', width: 150, order: null },
	pages: { words: 'Pages', width: 76, order: 'pages', number: true },
	size: { words: 'Size', width: 84, order: 'size', number: true },
	condition: { words: 'Condition', width: 128, order: 'condition' },
	language: { words: 'Language', width: 104, order: 'language' },
	brought: { words: 'Brought in', width: 116, order: 'brought' },
	by: { words: 'By', width: 124, order: 'by' },
	readers: { words: 'Readers, 30 days', width: 142, order: 'readers', number: true }
};

const usual: readonly ColumnName[] = ['passage', 'door', 'placed', 'edition', 'readers'];

/** The columns that a cookie names, in its order; the usual ones where it names none. */
export function columnsFrom(cookie: string | undefined): ColumnName[] {
	const named = (cookie ?? '').split('.').filter((c): c is ColumnName => (columnNames as readonly string[]).includes(c));
	return named.length ? [...new Set(named)] : [...usual];
}

/** Keeps a choice of columns in this browser. */
export function keepColumns(chosen: readonly ColumnName[]): void {
	document.cookie = `ianua_columns=${chosen.join('.')}; path=/desk; max-age=31536000; samesite=lax`;
}
