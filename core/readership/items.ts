// The usage of documents as the item report of the COUNTER Code of Practice, release 5.1, lays it out (from memory; whoever audits such reports may know
// better): a header, then for each document a line for each kind of figure, with its total and its months. Whole months only.

/** Open to everyone when it was asked for, or behind a door that is not. */
export const accessTypes = ['Controlled', 'Free_To_Read'] as const;
export type AccessType = (typeof accessTypes)[number];

/** Figures of one document in one month (YYYY-MM), with one kind of access. Of an hour in which a reader had both, the uniques are in the controlled ones alone. */
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
	readonly access: AccessType;
	/** The year in which it came out, YYYY. */
	readonly year: string;
}

const metrics = [
	['Total_Item_Investigations', 'investigations'],
	['Total_Item_Requests', 'requests'],
	['Unique_Item_Investigations', 'uniqueInvestigations'],
	['Unique_Item_Requests', 'uniqueRequests'],
	// turned away for want of a right to read, which COUNTER calls a licence
	['No_License', 'refusals']
] as const;

/** The kinds of figures that a report of items has lines for. */
export const itemMetrics = metrics.map(([name]) => name);

export interface ItemLine {
	readonly Item: string;
	readonly Publisher: string;
	readonly Platform: string;
	readonly Proprietary_ID: string;
	readonly URI: string;
	readonly Data_Type: 'Other';
	readonly YOP: string;
	readonly Access_Type: AccessType;
	readonly Metric_Type: (typeof metrics)[number][0];
	readonly Reporting_Period_Total: number;
	readonly months: Readonly<Record<string, number>>;
}

export interface ItemReport {
	readonly header: Readonly<Record<string, string>>;
	/** The days that it is about, both included. */
	readonly first: string;
	readonly last: string;
	readonly months: readonly string[];
	readonly items: readonly ItemLine[];
}

/** The whole months in which days lie: from the first day of the first to the last day of the last. 15 September to 2 October → 1 September to 31 October. */
export function wholeMonths({ first, last }: { readonly first: string; readonly last: string }): { first: string; last: string } {
	const [year, month] = last.split('-').map(Number) as [number, number];
	return { first: `${first.slice(0, 7)}-01`, last: new Date(Date.UTC(year, month, 0)).toISOString().slice(0, 10) };
}

const shortMonths = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
/** '2026-09' → 'Sep-2026', as the columns of the report are called. */
export const monthHeading = (month: string): string => `${shortMonths[Number(month.slice(5)) - 1] ?? ''}-${month.slice(0, 4)}`;

/** Months from the one in which the first day lies to that of the last, as YYYY-MM. */
export function monthsOf(first: string, last: string): string[] {
	const out: string[] = [];
	for (let [y, m] = first.split('-').map(Number) as [number, number]; ; m === 12 ? (y++, (m = 1)) : m++) {
		const month = `${y}-${String(m).padStart(2, '0')}`;
		if (month > last.slice(0, 7)) return out;
		out.push(month);
	}
}

/** The report on `rows`, one for each document, kind of access and month, over the days from `first` to `last`. Kinds of figures that a document has none of are left out. */
export function itemReport(
	rows: readonly MonthFigures[],
	header: { readonly site: string; readonly origin: string; readonly first: string; readonly last: string; readonly created: string }
): ItemReport {
	const months = monthsOf(header.first, header.last);
	const groups = new Map<string, { first: MonthFigures; own: Map<string, MonthFigures> }>();
	for (const row of rows) {
		const name = `${row.slug} ${row.access}`;
		const known = groups.get(name);
		if (known) known.own.set(row.month, row);
		else groups.set(name, { first: row, own: new Map([[row.month, row]]) });
	}
	const items: ItemLine[] = [];
	for (const {
		first: { slug, title, year, access },
		own
	} of groups.values()) {
		for (const [metric, key] of metrics) {
			const byMonth: Record<string, number> = {};
			let total = 0;
			for (const month of months) total += byMonth[month] = own.get(month)?.[key] ?? 0;
			if (total)
				items.push({
					Item: title,
					Publisher: header.site,
					Platform: header.site,
					Proprietary_ID: `ianua:${slug}`,
					URI: `${header.origin}/d/${slug}`,
					Data_Type: 'Other',
					YOP: year,
					Access_Type: access,
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
			Release: '5.1',
			Institution_Name: 'The World',
			Institution_ID: '',
			Metric_Types: metrics.map(([m]) => m).join('; '),
			Report_Filters: '',
			Report_Attributes: 'Attributes_To_Show=YOP|Access_Type',
			Exceptions: '',
			Reporting_Period: `Begin_Date=${header.first}; End_Date=${header.last}`,
			Created: header.created,
			Created_By: header.site,
			Registry_Record: ''
		},
		first: header.first,
		last: header.last,
		months,
		items
	};
}

/** The columns before the figures. What is of no use for a document of a website stands empty in them. */
const columns = [
	'Item',
	'Publisher',
	'Publisher_ID',
	'Platform',
	'DOI',
	'Proprietary_ID',
	'ISBN',
	'Print_ISSN',
	'Online_ISSN',
	'URI',
	'Data_Type',
	'YOP',
	'Access_Type',
	'Metric_Type'
] as const;

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
		[...columns, 'Reporting_Period_Total', ...report.months.map(monthHeading)],
		...report.items.map((item) => {
			const cells: Readonly<Partial<Record<(typeof columns)[number], string>>> = item;
			return [...columns.map((name) => cells[name] ?? ''), item.Reporting_Period_Total, ...report.months.map((m) => item.months[m] ?? 0)];
		})
	];
	return lines.map((line) => line.map(clean).join('\t') + '\r\n').join('');
}

/** The report as the JSON of release 5.1 lays it out, from memory: what the table says in rows, filters and attributes by their names, figures by month. */
export interface ItemReportJson {
	readonly Report_Header: {
		readonly Report_Name: string;
		readonly Report_ID: string;
		readonly Release: string;
		readonly Institution_Name: string;
		readonly Institution_ID: Readonly<Record<string, string[]>>;
		readonly Report_Filters: { readonly Metric_Type: string[]; readonly Begin_Date: string; readonly End_Date: string };
		readonly Report_Attributes: { readonly Attributes_To_Show: string[] };
		readonly Exceptions: readonly { readonly Code: number; readonly Message: string }[];
		readonly Created: string;
		readonly Created_By: string;
		readonly Registry_Record: string;
	};
	readonly Report_Items: readonly {
		readonly Items: readonly {
			readonly Item: string;
			readonly Publisher: string;
			readonly Platform: string;
			readonly Item_ID: { readonly Proprietary: string; readonly URI: string };
			readonly Attribute_Performance: readonly {
				readonly Data_Type: ItemLine['Data_Type'];
				readonly YOP: string;
				readonly Access_Type: ItemLine['Access_Type'];
				/** By kind of figure and month (YYYY-MM), months without any left out. */
				readonly Performance: Readonly<Record<string, Readonly<Record<string, number>>>>;
			}[];
		}[];
	}[];
}

/** What `itemTable` says, as JSON. */
export function itemJson({ header, months, items, first, last }: ItemReport): ItemReportJson {
	const byId = new Map<string, ItemLine[]>();
	for (const line of items) byId.set(line.Proprietary_ID, [...(byId.get(line.Proprietary_ID) ?? []), line]);
	const { Report_Name = '', Report_ID = '', Release = '', Institution_Name = '', Created = '', Created_By = '', Registry_Record = '' } = header;
	return {
		Report_Header: {
			...{ Report_Name, Report_ID, Release, Institution_Name },
			Institution_ID: {},
			Report_Filters: { Metric_Type: [...itemMetrics], Begin_Date: first, End_Date: last },
			Report_Attributes: { Attributes_To_Show: ['YOP', 'Access_Type'] },
			Exceptions: [],
			...{ Created, Created_By, Registry_Record }
		},
		// no document is part of another: one group holds them all
		Report_Items: [
			{
				Items: [...byId.values()].map((lines) => {
					// each has a line at least
					const { Item, Publisher, Platform, Proprietary_ID, URI, Data_Type, YOP } = lines[0]!;
					const performance = (access: AccessType) => {
						const own = lines.filter((line) => line.Access_Type === access);
						if (!own.length) return [];
						const figures = own.map((line) => [line.Metric_Type, Object.fromEntries(months.flatMap((m) => (line.months[m] ? [[m, line.months[m]]] : [])))]);
						return [{ Data_Type, YOP, Access_Type: access, Performance: Object.fromEntries(figures) as Record<string, Record<string, number>> }];
					};
					return { ...{ Item, Publisher, Platform }, Item_ID: { Proprietary: Proprietary_ID, URI }, Attribute_Performance: accessTypes.flatMap(performance) };
				})
			}
		]
	};
}
