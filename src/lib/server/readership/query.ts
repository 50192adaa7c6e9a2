// What the addresses of reports may say: how many days, which entries, where to go on.
export const lengths = [7, 30, 90] as const;

export function reportQuery(url: URL): { length: number; of: 'readers' | 'staff' | 'all'; cursor: string | null } {
	const days = Number(url.searchParams.get('days'));
	const of = url.searchParams.get('of');
	return { length: lengths.find((l) => l === days) ?? 30, of: of === 'staff' || of === 'all' ? of : 'readers', cursor: url.searchParams.get('cursor') };
}
