// The usage of documents as an item report after the COUNTER Code of Practice, release 5 (shape from memory): a header, then for each
// document a line for each kind of figure, with its total and its months.

/** Figures of one document in one month (YYYY-MM). */
export interface MonthFigures {
	readonly slug: string;
	readonly title: string;
	readonly month: string;
	/** Document pages looked at, openings and saves. */
	readonly investigations: number;
	/** Openings and saves. */
	readonly requests: number;
	/** Of investigations, one for each reader and clock hour. */
	readonly uniqueInvestigations: number;
	/** Of requests, the same. */
	readonly uniqueRequests: number;
	readonly refusals: number;
}

const metrics = [
	['Total_Item_Investigations', 'investigations'],
	['Total_Item_Requests', 'requests'],
	['Unique_Item_Investigations', 'uniqueInvestigations'],
	['Unique_Item_Requests', 'uniqueRequests'],
	['Access_Denied', 'refusals']
] as const;

/** The kinds of figures that a report of items has lines for. */
export const itemMetrics = metrics.map(([name]) => name);

export interface ItemLine {
	readonly Item: string;
	readonly Proprietary_ID: string;
	readonly URI: string;
	readonly Metric_Type: (typeof metrics)[number][0];
	readonly Reporting_Period_Total: number;
	readonly months: Readonly<Record<string, number>>;
}

export interface ItemReport {
	readonly header: Readonly<Record<string, string>>;
	readonly months: readonly string[];
	readonly items: readonly ItemLine[];
}

/** Months from the one in which the first day lies to that of the last, as YYYY-MM. */
export function monthsOf(first: string, last: string): string[] {
	const out: string[] = [];
	for (let [y, m] = first.split('-').map(Number) as [number, number]; ; m === 12 ? (y++, (m = 1)) : m++) {
		const month = `${y}-${String(m).padStart(2, '0')}`;
		if (month > last.slice(0, 7)) return out;
		out.push(month);
	}
}

/** The report on `rows`, one for each document and month, over the days from `first` to `last`. Kinds of figures that a document has none of are left out. */
export function itemReport(
	rows: readonly MonthFigures[],
	header: { readonly site: string; readonly origin: string; readonly first: string; readonly last: string; readonly created: string }
): ItemReport {
	const months = monthsOf(header.first, header.last);
	const documents = new Map<string, { title: string; byMonth: Map<string, MonthFigures> }>();
	for (const row of rows) {
		const known = documents.get(row.slug);
		if (known) known.byMonth.set(row.month, row);
		else documents.set(row.slug, { title: row.title, byMonth: new Map([[row.month, row]]) });
	}
	const items: ItemLine[] = [];
	for (const [slug, { title, byMonth: own }] of documents) {
		for (const [metric, key] of metrics) {
			const byMonth: Record<string, number> = {};
			let total = 0;
			for (const month of months) total += byMonth[month] = own.get(month)?.[key] ?? 0;
			if (total)
				items.push({
					Item: title,
					Proprietary_ID: `ianua:${slug}`,
					URI: `${header.origin}/d/${slug}`,
					Metric_Type: metric,
					Reporting_Period_Total: total,
					months: byMonth
				});
		}
	}
	return {
		header: {
			Report_Name: 'Item Report',
			Report_ID: 'IR',
			Release: '5',
			Institution_Name: header.site,
			Metric_Types: metrics.map(([m]) => m).join('; '),
			Reporting_Period: `Begin_Date=${header.first}; End_Date=${header.last}`,
			Created: header.created,
			Created_By: 'Ianua'
		},
		months,
		items
	};
}

/** The report as tab-separated values; a tab or line break inside a value becomes a space. */
export function itemTable(report: ItemReport): string {
	const clean = (value: string | number) => {
		const text = String(value).replace(/[\t\r\n]+/g, ' ');
		// no spreadsheet takes a title for a formula
		return /^[=+\-@]/.test(text) ? `'${text}` : text;
	};
	const lines: (string | number)[][] = [
		...Object.entries(report.header),
		[],
		['Item', 'Proprietary_ID', 'URI', 'Metric_Type', 'Reporting_Period_Total', ...report.months],
		...report.items.map((i) => [i.Item, i.Proprietary_ID, i.URI, i.Metric_Type, i.Reporting_Period_Total, ...report.months.map((m) => i.months[m] ?? 0)])
	];
	return lines.map((line) => line.map(clean).join('\t') + '\r\n').join('');
}
