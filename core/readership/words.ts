// The answer of a report as a sentence made from its figures.
import { counted, listWords } from '../access/reach';
import type { Figures } from './counting';

/** A piece of a sentence; `strong` pieces carry the figures. */
export interface Piece {
	readonly text: string;
	readonly tone?: 'strong' | 'wrong';
}

/**
 * What a document's figures come to. `admitted` is how many people of today may open it, null where anyone may.
 * Example: 11 of 14 have opened it in 30 days, with 25 openings and 5 saves.
 */
export function documentAnswer(figures: Figures, admitted: number | null, readMembers: number, days: number): Piece[] {
	const out: Piece[] = [];
	if (admitted !== null) {
		if (admitted === 0) out.push({ text: 'Nobody but staff may open it today' });
		else {
			out.push({ text: `${readMembers} of the ${admitted}`, tone: 'strong' }, { text: ` who may open it ${readMembers === 1 ? 'has' : 'have'} done so` });
		}
		out.push({ text: ` in the last ${days} days: ` });
	} else if (figures.readers) {
		out.push({ text: counted(figures.readers, 'reader', 'readers'), tone: 'strong' }, { text: ` in the last ${days} days: ` });
	} else out.push({ text: `Nobody in the last ${days} days: ` });
	out.push({ text: `${listWords([counted(figures.openings, 'opening', 'openings'), counted(figures.saves, 'copy saved', 'copies saved')])}. ` });
	if (figures.refusals) out.push({ text: `Turned away ${counted(figures.refusals, 'time', 'times')}.`, tone: 'wrong' });
	return out;
}

/** What the whole site's figures come to, over `days` days. */
export function siteAnswer(figures: Figures, documents: number, days: number): Piece[] {
	if (!figures.openings && !figures.saves) return [{ text: `Nobody has opened a document in the last ${days} days.` }];
	return [
		{ text: counted(figures.readers, 'reader', 'readers'), tone: 'strong' },
		{ text: ` opened ${counted(documents, 'document', 'documents')} ${counted(figures.openings, 'time', 'times')} in the last ${days} days and saved ` },
		{ text: counted(figures.saves, 'copy', 'copies'), tone: 'strong' },
		{ text: '. ' },
		...(figures.refusals ? [{ text: `${counted(figures.refusals, 'time', 'times')} somebody was turned away.`, tone: 'wrong' as const }] : [])
	];
}
