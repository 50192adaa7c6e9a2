// Sizes in bytes said as people say them, in powers of ten as file managers and storage makers do (SI prefixes).

/** 340_000 → '340 kB'; 3_100_000 → '3.1 MB'. Below 10 of a unit one decimal, else none. */
export function sizeWords(bytes: number): string {
	if (bytes < 1000) return `${bytes} bytes`;
	const units = ['kB', 'MB', 'GB', 'TB'];
	let value = bytes / 1000;
	let unit = 0;
	while (value >= 999.5 && unit < units.length - 1) {
		value /= 1000;
		unit++;
	}
	return `${value < 9.95 ? Number(value.toFixed(1)) : Math.round(value)} ${units[unit]}`;
}
