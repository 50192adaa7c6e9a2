// Sums of single days, added up for a report.
import { devices, type Device, type Figures } from './counting';
import { weekdayOf, type Days } from './period';

/** The sums of one day, of a document or of the whole site. */
export interface DayFigures extends Omit<Figures, 'readers'> {
	readonly day: string;
	readonly staffOpenings: number;
	readonly staffSaves: number;
	/** Openings and saves by clock hour, 24 of them. */
	readonly hours: readonly number[];
	/** Openings and saves by device, in the order of `devices`. */
	readonly devices: readonly number[];
}

/** What a report says of its days. Distinct readers do not add up from days. */
export interface Added {
	readonly figures: Omit<Figures, 'readers'>;
	/** Openings and saves by staff, which count in nothing else. */
	readonly staff: { readonly openings: number; readonly saves: number };
	/** Openings and saves by weekday (Monday first) and clock hour. */
	readonly week: readonly (readonly number[])[];
	/** Openings and saves by device; those without any are left out. */
	readonly devices: readonly { readonly device: Device; readonly n: number }[];
}

/** Adds up those of the days that lie from the first to the last. */
export function addDays(days: readonly DayFigures[], { first, last }: Days): Added {
	const figures = { openings: 0, saves: 0, printed: 0, refusals: 0, seconds: 0 };
	const staff = { openings: 0, saves: 0 };
	const week = Array.from({ length: 7 }, () => new Array<number>(24).fill(0));
	const byDevice = devices.map((device) => ({ device, n: 0 }));
	for (const sum of days) {
		if (sum.day < first || sum.day > last) continue;
		for (const key of Object.keys(figures) as (keyof typeof figures)[]) figures[key] += sum[key];
		staff.openings += sum.staffOpenings;
		staff.saves += sum.staffSaves;
		const hours = week[weekdayOf(sum.day)]!;
		for (const [hour, n] of sum.hours.entries()) hours[hour]! += n;
		for (const [i, n] of sum.devices.entries()) byDevice[i]!.n += n;
	}
	return { figures, staff, week, devices: byDevice.filter(({ n }) => n) };
}
