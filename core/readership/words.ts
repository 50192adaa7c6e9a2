// The answer of a report as a sentence made from its figures.
import { counted, listWords } from '../text/list';
import type { Figures } from './counting';

/** A piece of a sentence; `strong` pieces carry the figures. */
export interface Piece {
	readonly text: string;
	readonly tone?: 'strong' | 'wrong';
}

/** Seconds as people say them: 40 s, 35 min, 4 h 20 min. */
export function durationWords(seconds: number): string {
	if (seconds < 59.5) return `${Math.round(seconds)} s`;
	const minutes = Math.round(seconds / 60);
	if (minutes < 60) return `${minutes} min`;
	const hours = Math.floor(minutes / 60);
	return minutes % 60 ? `${hours} h ${minutes % 60} min` : `${hours} h`;
}

/** How a figure stands to the one before: '12 % more than', 'twice as much as', 'as much as'; null where there was none before. */
export function changeWords(now: number, before: number): string | null {
	if (before <= 0) return null;
	const ratio = now / before;
	if (ratio >= 2.95) return `${Math.round(ratio)} times as much as`;
	if (ratio >= 1.95) return 'twice as much as';
	const percent = Math.round(100 * Math.abs(ratio - 1));
	return percent < 2 ? 'as much as' : `${percent} % ${ratio > 1 ? 'more' : 'less'} than`;
}

/** A time in words: 'in the last 30 days', 'from 1 to 14 March' come from `when`; `length` is its days. */
export interface When {
	readonly words: string;
	readonly length: number;
}

/** Of the people a keyed door admits today: how many stand where with the edition in force, ever. */
export interface Roll {
	readonly admitted: number;
	readonly opened: number;
	readonly through: number;
	/** Who said that they have read it; null where it does not ask. */
	readonly receipts: number | null;
}

/**
 * What a document's figures come to. `roll` is null where anyone may open it. `placedAt` names where most were turned away.
 * Example: 11 of the 14 who may open it have: 7 read it through, 5 copies saved …
 */
export function documentAnswer(figures: Figures, before: Figures, roll: Roll | null, when: When, turnedAwayAt: string | null = null): Piece[] {
	const out: Piece[] = [];
	const { openings, saves, printed, seconds, readers, refusals } = figures;
	const did = [counted(openings, 'opening', 'openings'), counted(saves, 'copy saved', 'copies saved'), ...(printed ? [`printed ${times(printed)}`] : [])];
	if (roll) {
		if (!roll.admitted) out.push({ text: 'Nobody but staff may open it today. ' });
		else {
			out.push({ text: `${roll.opened} of the ${roll.admitted}`, tone: 'strong' }, { text: ` who may open it ${roll.opened === 1 ? 'has' : 'have'}` });
			out.push({ text: roll.opened ? `, and ${roll.through} read it through. ` : '. ' });
			const missing = roll.admitted - roll.opened;
			if (missing && roll.opened) out.push({ text: `${missing} ${missing === 1 ? 'has' : 'have'} not opened it`, tone: 'wrong' }, { text: '. ' });
			if (roll.receipts !== null)
				out.push({ text: `${roll.receipts} of the ${roll.admitted}`, tone: 'strong' }, { text: ` ${roll.receipts === 1 ? 'has' : 'have'} given a receipt. ` });
		}
	}
	if (!readers) out.push({ text: `Nobody opened it ${when.words}. ` });
	else {
		out.push({ text: counted(readers, 'reader', 'readers'), tone: 'strong' }, { text: ` ${when.words}: ${listWords(did)}. ` });
		if (seconds >= 1) {
			const change = changeWords(seconds, before.seconds);
			out.push({ text: 'They gave it ' }, { text: durationWords(seconds), tone: 'strong' });
			out.push({ text: `${change ? `, ${change} in the ${counted(when.length, 'day', 'days')} before` : ''}. ` });
		}
	}
	if (refusals) out.push({ text: `Turned away ${times(refusals)}${turnedAwayAt ? `, mostly from ${turnedAwayAt}` : ''}.`, tone: 'wrong' });
	return out;
}

const times = (n: number) => counted(n, 'time', 'times');

/** What the whole site's figures come to. */
export function siteAnswer(figures: Figures, before: Figures, documents: number, when: When): Piece[] {
	if (!figures.openings && !figures.saves) return [{ text: `Nobody opened a document ${when.words}.` }];
	const change = changeWords(figures.openings + figures.saves, before.openings + before.saves);
	const out: Piece[] = [
		{ text: counted(figures.readers, 'reader', 'readers'), tone: 'strong' },
		{ text: ` opened ${counted(documents, 'document', 'documents')} ${times(figures.openings)} ${when.words} and saved ` },
		{ text: counted(figures.saves, 'copy', 'copies'), tone: 'strong' },
		{ text: change ? `, ${change} in the ${counted(when.length, 'day', 'days')} before. ` : '. ' }
	];
	if (figures.seconds >= 1) out.push({ text: 'They read for ' }, { text: durationWords(figures.seconds), tone: 'strong' }, { text: '. ' });
	if (figures.refusals) out.push({ text: `${times(figures.refusals)} somebody was turned away.`, tone: 'wrong' });
	return out;
}

/** What a member's figures come to. */
export function memberAnswer(name: string, figures: Pick<Figures, 'openings' | 'saves' | 'seconds' | 'refusals'>, documents: number, when: When): Piece[] {
	if (!figures.openings && !figures.saves)
		return [
			{ text: `${name} opened nothing ${when.words}. ` },
			...(figures.refusals ? [{ text: `Turned away ${times(figures.refusals)}.`, tone: 'wrong' as const }] : [])
		];
	return [
		{ text: `${name} opened ` },
		{ text: counted(documents, 'document', 'documents'), tone: 'strong' },
		{ text: ` ${times(figures.openings)} ${when.words}, saved ${counted(figures.saves, 'copy', 'copies')}` },
		...(figures.seconds >= 1 ? [{ text: ' and read for ' }, { text: durationWords(figures.seconds), tone: 'strong' as const }] : []),
		{ text: '. ' },
		...(figures.refusals ? [{ text: `Turned away ${times(figures.refusals)}.`, tone: 'wrong' as const }] : [])
	];
}
