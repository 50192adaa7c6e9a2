// A second program: the figures of every report, worked out from the lines of an exported ledger alone. It takes from ours no rule but what an export says of
// each line, whether it counts (`leftOut`), and is as plain as can be.
import type { ExportLine } from '#core/upkeep/portable';

export type Line = ExportLine<'ledger'>;
interface Days {
	readonly first: string;
	readonly last: string;
}
/** Where somebody has to have looked at a page for so many seconds for it to be read (product.md). */
const readSeconds = 2;

const shifted = (day: string, by: number) => new Date(Date.parse(day) + by * 86_400_000).toISOString().slice(0, 10);
const lengthOf = ({ first, last }: Days) => (Date.parse(last) - Date.parse(first)) / 86_400_000 + 1;
const total = (numbers: readonly number[]) => numbers.reduce((sum, n) => sum + n, 0);
const distinct = (names: readonly (string | number)[]) => new Set(names).size;
function grouped<T>(items: readonly T[], keyOf: (item: T) => string): [string, T[]][] {
	const groups = new Map<string, T[]>();
	for (const item of items) groups.set(keyOf(item), [...(groups.get(keyOf(item)) ?? []), item]);
	return [...groups];
}

const kinds = (some: readonly Line[], ...wanted: string[]) => some.filter((e) => wanted.includes(e.kind));
const requests = (some: readonly Line[]) => kinds(some, 'opened', 'saved');
const secondsOf = (some: readonly Line[]) => total(some.flatMap((e) => (e.pages ?? []).map((p) => p.seconds)));
/** Seconds by page. */
const byPage = (some: readonly Line[]) =>
	grouped(kinds(some, 'read').flatMap((e) => e.pages ?? []), ({ page }) => String(page)).map(([page, each]) => ({ page: Number(page), seconds: total(each.map((p) => p.seconds)) })); // prettier-ignore

/** The figures that every report has. */
const figuresOf = (some: readonly Line[]) => ({
	openings: kinds(some, 'opened').length,
	saves: kinds(some, 'saved').length,
	printed: kinds(some, 'printed').length,
	refusals: kinds(some, 'turned-away').length,
	readers: distinct(requests(some).map((e) => e.reader)),
	seconds: secondsOf(kinds(some, 'read'))
});

/** From a ledger in a time zone; `inForce` are the editions that documents (by slug) have now. */
export function recompute(ledger: readonly Line[], zone: string, inForce: ReadonlyMap<string, { readonly number: number; readonly pages: number }>) {
	const hours = new Intl.DateTimeFormat('en-GB', { timeZone: zone, dateStyle: 'short', timeStyle: 'short', hourCycle: 'h23' });
	/** Day and clock hour. */
	const clock = ({ at }: Line) => {
		const [, d, m, y, h] = /^(\d+)\/(\d+)\/(\d+), (\d+)/.exec(hours.format(new Date(at)))!;
		return { day: `${y}-${m}-${d}`, hour: Number(h) };
	};
	const clocks = new Map(ledger.map((e) => [e, clock(e)]));
	const dayOf = (e: Line) => clocks.get(e)!.day;
	const sessions = (some: readonly Line[]) => distinct(some.map((e) => `${e.document} ${dayOf(e)} ${clocks.get(e)!.hour} ${e.reader}`));
	const counted = ledger.filter((e) => e.leftOut === null);
	const within = (some: readonly Line[], { first, last }: Days) => some.filter((e) => dayOf(e) >= first && dayOf(e) <= last);
	const beforeOf = (days: Days) => ({ first: shifted(days.first, -lengthOf(days)), last: shifted(days.first, -1) });

	const common = (own: (e: Line) => boolean, days: Days) => {
		const all = counted.filter(own);
		const now = within(all, days);
		const byStaff = within(ledger, days).filter((e) => own(e) && e.staff && !e.robot && !e.preload);
		const asked = requests(now);
		return {
			figures: figuresOf(now),
			before: figuresOf(within(all, beforeOf(days))),
			staff: { openings: kinds(byStaff, 'opened').length, saves: kinds(byStaff, 'saved').length },
			// Monday first; 1 January 2024 was one
			week: Array.from({ length: 7 }, (_, weekday) =>
				Array.from({ length: 24 }, (_, hour) => asked.filter((e) => clocks.get(e)!.hour === hour && ((Date.parse(dayOf(e)) - Date.parse('2024-01-01')) / 86_400_000) % 7 === weekday).length)
			), // prettier-ignore
			devices: ['computer', 'tablet', 'phone', 'other'].map((device) => ({ device, n: asked.filter((e) => e.device === device).length })).filter(({ n }) => n),
			bars: Array.from({ length: lengthOf(days) }, (_, i) => {
				const day = shifted(days.first, i);
				const on = (which: string) => all.filter((e) => dayOf(e) === which);
				return {
					day,
					openings: kinds(on(day), 'opened').length,
					saves: kinds(on(day), 'saved').length,
					before: requests(on(shifted(day, -lengthOf(days)))).length
				};
			}),
			sources: grouped(asked, (e) => (e.key ? 'key' : `${e.source.kind} ${e.source.page ?? e.source.site ?? ''}`.trim()))
				.map(([from, each]) => [from, kinds(each, 'opened').length, kinds(each, 'saved').length] as const)
				.sort()
		};
	};

	/** How far a reader is with the edition in force, ever. */
	const farWith = (slug: string, reader: number) => {
		const read = byPage(counted.filter((e) => e.document === slug && e.edition === inForce.get(slug)!.number && e.reader === reader)).filter((p) => p.seconds >= readSeconds); // prettier-ignore
		return { pagesRead: read.length, furthest: Math.max(0, ...read.map((p) => p.page)) };
	};
	const span = (some: readonly Line[]) => {
		const instants = some.map((e) => e.at).sort();
		return { first: instants[0]!, last: instants.at(-1)! };
	};
	const doings = (some: readonly Line[]) => {
		const { openings, saves, printed, seconds } = figuresOf(some);
		return { openings, saves, printed, seconds, ...span(some) };
	};

	return {
		overview: (days: Days) => ({
			...common(() => true, days),
			documents: grouped(counted, (e) => e.document).map(([slug, all]) => {
				const { openings, saves, refusals, seconds, readers } = figuresOf(within(all, days));
				return { slug, openings, saves, refusals, seconds, readers, before: requests(within(all, beforeOf(days))).length };
			})
		}),
		document: (slug: string, days: Days) => {
			const own = (e: Line) => e.document === slug;
			const now = within(counted.filter(own), days);
			const did = kinds(now, 'opened', 'saved', 'printed', 'read');
			const people = grouped(did.filter((e) => e.person !== null || e.key !== null), (e) => String(e.reader)); // prettier-ignore
			// what a reader did on a day with the edition in force
			const visits = grouped(kinds(now, 'read').filter((e) => e.edition === inForce.get(slug)!.number), (e) => `${dayOf(e)} ${e.reader}`).map(([, each]) => byPage(each)); // prettier-ignore
			const ends = visits.map((pages) => Math.max(0, ...pages.filter((p) => p.seconds >= readSeconds).map((p) => p.page)));
			return {
				...common(own, days),
				attention: [...new Set(visits.flat().map((p) => p.page))]
					.sort((a, b) => a - b)
					.map((page) => {
						const each = visits.flat().filter((p) => p.page === page);
						return {
							page,
							seconds: total(each.map((p) => p.seconds)),
							readers: each.filter((p) => p.seconds >= readSeconds).length,
							stops: ends.filter((end) => end === page).length
						};
					}),
				people: people
					.map(([reader, each]) => ({ ...doings(each), ...farWith(slug, Number(reader)), byKey: each.some((e) => e.key !== null) }))
					.sort((a, b) => (a.last < b.last ? 1 : -1)),
				nameless: figuresOf(now).readers - people.filter(([, each]) => requests(each).length).length
			};
		},
		member: (email: string, days: Days) => {
			const own = (e: Line) => e.person === email;
			const now = within(counted.filter(own), days);
			return {
				figures: figuresOf(now),
				bars: common(own, days).bars,
				documents: grouped(kinds(now, 'opened', 'saved', 'printed', 'read'), (e) => e.document)
					.map(([slug, each]) => ({ slug, ...doings(each), pages: inForce.get(slug)!.pages, pagesRead: farWith(slug, each[0]!.reader).pagesRead }))
					.sort((a, b) => (a.last < b.last ? 1 : -1))
			};
		},
		/** Of each document and place: came into view, was pressed, opened, saved. */
		places: (days: Days) =>
			grouped(
				within(counted, days).filter((e) => e.source.page !== null || e.source.site !== null),
				(e) => `${e.document} ${e.source.page ?? e.source.site}`
			)
				.map(([place, each]) => {
					const [shown, looks, openings, saves] = ['shown', 'looked', 'opened', 'saved'].map((kind) => kinds(each, kind).length) as [
						number,
						number,
						number,
						number
					];
					return [place, shown, Math.max(looks, openings, saves), openings, saves] as const;
				})
				// met there and nothing more
				.filter(([, ...counts]) => Math.max(...counts) > 0)
				.sort(),
		/** Of each document, reason and page: how often, how many readers without a name, the last time. */
		turnedAway: (days: Days) =>
			grouped(kinds(within(counted, days), 'turned-away'), (e) => `${e.document} ${e.reason} ${e.source.page}`)
				.map(([what, each]) => [what, each.length, distinct(each.filter((e) => e.person === null).map((e) => e.reader)), span(each).last] as const)
				.sort(),
		/** Of each document and kind of access, by kind of figure; of an hour with both, uniques are controlled. */
		items: (days: Days) => {
			const lines = grouped(within(counted, days), (e) => e.document).flatMap(([slug, each]) => {
				const investigations = kinds(each, 'opened', 'saved', 'looked');
				const kept = (some: readonly Line[]) => some.filter((e) => e.controlled);
				const parted = (count: (some: readonly Line[]) => number, some: readonly Line[]) => [count(kept(some)), count(some) - count(kept(some))];
				const number = (some: readonly Line[]) => some.length;
				const of: [string, number[]][] = [
					['Total_Item_Investigations', parted(number, investigations)],
					['Total_Item_Requests', parted(number, requests(each))],
					['Unique_Item_Investigations', parted(sessions, investigations)],
					['Unique_Item_Requests', parted(sessions, requests(each))],
					['No_License', [kinds(each, 'turned-away').length, 0]]
				];
				return of.flatMap(([metric, ns]) => ['Controlled', 'Free_To_Read'].map((access, i) => [`${slug} ${access} ${metric}`, ns[i]!] as const));
			});
			return lines.filter(([, n]) => n > 0).sort();
		}
	};
}
