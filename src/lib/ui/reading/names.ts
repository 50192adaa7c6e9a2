// Which message names which way and fit.
import type { Fit, Way } from '#core/reading/settings';
import type { RoomWords } from '#core/words/words';

export const wayNames = {
	down: 'down',
	across: 'across',
	tiled: 'tiled',
	'one-by-one': 'oneByOne',
	book: 'book',
	turning: 'turning'
} as const satisfies Record<Way, keyof RoomWords>;

export const fitNames = {
	comfortable: 'comfortable',
	page: 'wholePage',
	width: 'fullWidth',
	height: 'fullHeight',
	paper: 'paperSize'
} as const satisfies Record<Fit, keyof RoomWords>;
