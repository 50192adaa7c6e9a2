// Robots by behaviour (core/readership/counting: robotOpeningsAnHour): told from the entries of a day, never written into them.
import type postgres from 'postgres';
import { CountMinSketch } from '#core/readership/count-min-sketch';
import { clockHour } from '#core/readership/clock';
import { robotOpeningsAnHour } from '#core/readership/counting';
import type { Entry, Recent } from './recent';

type Transaction = postgres.TransactionSql;

/** Openings and saves in a time by readers without a name. */
const byNameless = (tx: Transaction, from: number, until: number) =>
	tx`at >= ${new Date(from)} and at < ${new Date(until)} and kind in ('opened', 'saved') and person_id is null and key_id is null and not staff and not robot and not preload`;

/** Readers of a day, all or those named, who behave like robots. Gives whom the sums did not know for one yet. */
export async function markRobots(tx: Transaction, day: string, zone: string, from: number, until: number, named: readonly string[] | null): Promise<string[]> {
	const rows = await tx<{ reader: string }[]>`
		insert into sum_robot (day, reader) select distinct ${day}::date, reader from (
			select reader from ledger where ${byNameless(tx, from, until)} ${named ? tx`and reader = any(${named as string[]})` : tx``}
			group by reader, date_trunc('hour', at at time zone ${zone}) having count(*) > ${robotOpeningsAnHour}) busy
		on conflict do nothing returning reader`;
	return rows.map((r) => r.reader);
}

/** The day whose sums are made, in the site’s zone; `hourOf` gives the clock hour of an instant. */
export interface SummedDay {
	readonly day: string;
	readonly zone: string;
	readonly from: number;
	readonly until: number;
	readonly hourOf: (at: number) => number;
}

/**
 * The same of whoever is among the fresh entries: nobody else begins to behave like a robot now. Who came seldom enough is known from what
 * this server remembers, without asking the ledger; `known` are the day’s robots already.
 */
export async function newRobots(tx: Transaction, recent: Recent, day: SummedDay, fresh: readonly Entry[], known: ReadonlySet<string>): Promise<string[]> {
	const hours = new Map<number, Entry[]>();
	for (const e of fresh) {
		if (e.at < day.from || e.at >= day.until || (e.kind !== 'opened' && e.kind !== 'saved') || e.person || e.key || e.staff || known.has(e.reader)) continue;
		const hour = day.hourOf(e.at);
		const entries = hours.get(hour);
		if (entries) entries.push(e);
		else hours.set(hour, [e]);
	}
	const robots: string[] = [];
	for (const [hour, entries] of hours) {
		const { from, until } = clockHour(entries[0]!.at, day.hourOf, day);
		const name = `${day.day} ${hour}`;
		const suspects = new Set<string>();
		const counts = recent.hour(name);
		if (counts) {
			for (const { reader } of entries) if (counts.add(reader) > robotOpeningsAnHour) suspects.add(reader);
		} else {
			const all = new CountMinSketch();
			const rows = await tx<{ reader: string; n: number }[]>`select reader, count(*)::int as n from ledger where ${byNameless(tx, from, until)} group by 1`;
			for (const { reader, n } of rows) if (all.add(reader, n) > robotOpeningsAnHour && !known.has(reader)) suspects.add(reader);
			recent.keepHour(name, all);
		}
		if (suspects.size) robots.push(...(await markRobots(tx, day.day, day.zone, from, until, [...suspects])));
	}
	return robots;
}
