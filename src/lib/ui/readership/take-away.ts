// Tables and pictures of a report as files: CSV (RFC 4180), JSON, PNG. Made in the browser from what the report shows.
import Papa from 'papaparse';

export interface Table {
	readonly columns: readonly string[];
	readonly rows: readonly (readonly (string | number | null)[])[];
}

/** Saves a file under a name. */
function keep(name: string, content: Blob): void {
	const link = document.createElement('a');
	link.href = URL.createObjectURL(content);
	link.download = name;
	link.click();
	setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** As CSV; cells that a spreadsheet would take for a formula are made text. */
export function keepCsv(name: string, table: Table): void {
	const text = Papa.unparse({ fields: [...table.columns], data: table.rows.map((r) => [...r]) }, { newline: '\r\n', escapeFormulae: true });
	keep(`${name}.csv`, new Blob([`${text}\r\n`], { type: 'text/csv;charset=utf-8' }));
}

/** As JSON: an object for each row, by the names of the columns. */
export function keepJson(name: string, table: Table): void {
	const rows = table.rows.map((row) => Object.fromEntries(table.columns.map((column, i) => [column, row[i] ?? null])));
	keep(`${name}.json`, new Blob([`${JSON.stringify(rows, null, '\t')}\n`], { type: 'application/json' }));
}

/** A canvas as PNG, on the ground of the page. */
export function keepPng(name: string, canvas: HTMLCanvasElement): void {
	const whole = document.createElement('canvas');
	[whole.width, whole.height] = [canvas.width, canvas.height];
	// a canvas without another context has this one
	const context = whole.getContext('2d')!;
	context.fillStyle = getComputedStyle(document.body).backgroundColor;
	context.fillRect(0, 0, whole.width, whole.height);
	context.drawImage(canvas, 0, 0);
	whole.toBlob((blob) => blob && keep(`${name}.png`, blob), 'image/png');
}
