// When a sweep of the store may go on: what nobody points to is put by, unless it is so much that something else must be wrong.

/** Strays that are put by whatever their share, and the largest share of the store beyond that. */
export const sweepLimit = { files: 20, share: 0.05 } as const;
/** Days for which what was put by is kept. */
export const putByDays = 30;

/** Whether so many strays among so many files may be put by. 21 of 420 may (5 %), 22 of 420 may not. */
export function maySweep(strays: number, files: number): boolean {
	return strays <= sweepLimit.files || strays <= files * sweepLimit.share;
}
