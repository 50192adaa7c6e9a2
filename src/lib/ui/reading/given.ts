// What a reading room is given.
import type { Chapter } from '#core/reading/edge';
import type { Box } from '#core/reading/fit';
import type { RoomPlace, RoomSettings } from '#core/reading/settings';
import type { Language, RoomWords } from '#core/words/words';
import type { OwnReceipt } from '$lib/server/reading/receipts';

/** What a room is given (src/lib/server/reading/room.ts). */
export interface RoomGiven {
	readonly document: {
		readonly slug: string;
		readonly title: string;
		readonly pages: number;
		readonly bytes: number;
		readonly runs: readonly (Box & { readonly pages: number })[];
		readonly language: string | null;
		/** The edition that this reading goes on with, whatever is put in meanwhile. */
		readonly edition: number;
		readonly outline: readonly Chapter[];
		readonly attachments: readonly string[];
		/** Whether its pages have words, or are pictures. */
		readonly hasWords: boolean;
		/** Steps of the file that its first page takes (core/reading/opening.ts). */
		readonly opening: readonly number[];
	};
	readonly place: RoomPlace;
	readonly settings: RoomSettings;
	readonly from: string | null;
	readonly back: { readonly path: string; readonly title: string | null };
	readonly maySave: boolean;
	/** Whether the file itself comes here; pages are pictures where it does not. */
	readonly hasFile: boolean;
	readonly mayPrint: boolean;
	/** What is asked of a member who reads it: that they say so. */
	readonly receipt: OwnReceipt | null;
	readonly language: Language;
	readonly words: RoomWords;
}
