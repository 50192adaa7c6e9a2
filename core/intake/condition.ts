// What the check found, in words: each finding says what it means for a reader and what can be done.
import type { PageSize } from './paper';

export type ConditionStatus = 'checking' | 'sound' | 'look' | 'refused';

export type FindingCode =
	| 'locked'
	| 'not-drawn'
	| 'first-page-not-drawn'
	| 'no-text'
	| 'partly-text'
	| 'text-not-read'
	| 'active-content'
	| 'xfa'
	| 'repaired'
	| 'print-forbidden'
	| 'copy-forbidden'
	| 'huge-page'
	| 'many-pages';

/** What a press can do about a finding: make an edition without active content, give the password, put in a new edition. */
export type Remedy = 'clean' | 'password' | 'edition';

export interface Finding {
	readonly code: FindingCode;
	/** What it is and what it means for a reader, then what can be done. */
	readonly text: string;
	readonly remedy?: Remedy;
}

export interface Condition {
	readonly status: ConditionStatus;
	readonly findings: readonly Finding[];
}

/** A line of a document's outline; `page` is null where it leads nowhere in the file. Depth 0 is the uppermost. */
export interface OutlineLine {
	readonly title: string;
	readonly page: number | null;
	readonly depth: number;
}

/** Whether the pages have words in them that can be found, copied and read aloud. */
export type TextLayer = 'yes' | 'partly' | 'no';

/** What the server's check reads out of a file. */
export interface Facts {
	/** PDF version of the header. */
	readonly version: string;
	/** 0 where the file is locked. */
	readonly pages: number;
	/** Runs of equal page sizes, merged: how many pages have which size. */
	readonly sizes: readonly (PageSize & { readonly pages: number })[];
	/** The same in the order of the pages, in runs of equal size; missing in what was checked before they were kept, or where there are too many. */
	readonly runs?: readonly (PageSize & { readonly pages: number })[];
	readonly title: string | null;
	readonly author: string | null;
	readonly subject: string | null;
	readonly createdAt: number | null;
	readonly changedAt: number | null;
	readonly producer: string | null;
	readonly encrypted: boolean;
	/** Permission flags of an encrypted file (ISO 32000-1, 7.6.3.2); all true where it is not encrypted. */
	readonly permits: { readonly print: boolean; readonly copy: boolean };
	readonly tagged: boolean;
	/** What the file says of its language (ISO 32000-1, 14.9.2), BCP 47. */
	readonly language: string | null;
	/** What its words suggest, where the file says nothing. */
	readonly guessed: string | null;
	readonly form: boolean;
	readonly xfa: boolean;
	readonly signed: boolean;
	/** Kinds of active content found: 'JavaScript', 'Launch', … */
	readonly active: readonly string[];
	readonly attachments: readonly { readonly name: string }[];
	readonly outline: readonly OutlineLine[];
	readonly text: TextLayer;
	/** Pages with words on them. */
	readonly textPages: number;
	/** Steps of the file for reading that its first page takes (core/reading/opening.ts); missing in what was checked before they were looked for. */
	readonly opening?: readonly number[];
	/** The structure had to be repaired while reading. */
	readonly repaired: boolean;
}

/** How the making of cover and text went, beside the facts. */
export interface Made {
	/** The page the cover shows: not 1 where page 1 cannot be drawn; null where none can. */
	readonly coverPage: number | null;
	/** False where the text could not be read, or not all of it within the limits. */
	readonly textRead: boolean;
	readonly locked?: boolean;
}

export const conditionWords: Record<ConditionStatus, string> = {
	checking: 'Being checked',
	sound: 'Sound',
	look: 'Worth a look',
	refused: 'Cannot be shown'
};

/** Share of pages with words from which on a file counts as text throughout: title leaves, plates and blank pages have none. */
const textShare = 0.7;

/** `textLayer(9, 10)` → 'yes', `textLayer(2, 10)` → 'partly', `textLayer(0, 10)` → 'no'. */
export function textLayer(textPages: number, pages: number): TextLayer {
	return textPages === 0 ? 'no' : textPages >= pages * textShare ? 'yes' : 'partly';
}

/** 200 in is the largest side that ISO 32000-1, Annex C.2 gives a page (14,400 units of 1/72 in, UserUnit 1). */
const hugeSide = 14_400 / 2;
const manyPages = 5000;

/** The condition that facts come to: cannot be shown where no page can be drawn, sound where nothing stands out, else worth a look. */
export function conditionOf(facts: Facts, made: Made): Condition {
	if (made.locked) {
		return refused({
			code: 'locked',
			text: 'It is locked with a password, so nobody can read it here. Give the password once and it is kept unlocked, or put in a copy without one.',
			remedy: 'password'
		});
	}
	if (made.coverPage === null) {
		return refused({
			code: 'not-drawn',
			text: 'None of its pages can be drawn: readers would see nothing. Export it again and put that in as a new edition.',
			remedy: 'edition'
		});
	}
	const findings: Finding[] = [];
	const { text, active } = facts;
	if (made.coverPage !== 1)
		findings.push({
			code: 'first-page-not-drawn',
			text: `Page 1 cannot be drawn; the cover shows page ${made.coverPage}. Look through it, and put in a better copy if there is one.`,
			remedy: 'edition'
		});
	if (!made.textRead)
		findings.push({
			code: 'text-not-read',
			text: 'Its words could not all be read, so find may miss it. Readers see its pages all the same; nothing needs doing.'
		});
	else if (text === 'no')
		findings.push({
			code: 'no-text',
			text: 'The pages are pictures without text: nobody can find words in it or have it read aloud. Run text recognition over it and put that in as a new edition.',
			remedy: 'edition'
		});
	else if (text === 'partly')
		findings.push({
			code: 'partly-text',
			text: `Only ${facts.textPages} of its ${facts.pages} pages have text; words on the others cannot be found or read aloud. Text recognition would help.`,
			remedy: 'edition'
		});
	if (active.length) {
		findings.push({
			code: 'active-content',
			text: `It carries active content (${active.join(', ')}). The reading room never runs it, but a saved copy may. A cleaned edition leaves it out; the original is kept.`,
			remedy: 'clean'
		});
	}
	if (facts.xfa)
		findings.push({
			code: 'xfa',
			text: 'It is an XFA form: browsers and many programs show only its stand-in page. Print it to PDF and put that in as a new edition.',
			remedy: 'edition'
		});
	if (facts.repaired)
		findings.push({
			code: 'repaired',
			text: 'Its structure is damaged in places. The pages can be shown, but some programs may refuse a saved copy. Export it again if you can.',
			remedy: 'edition'
		});
	if (facts.encrypted && !facts.permits.print)
		findings.push({
			code: 'print-forbidden',
			text: 'The file itself forbids printing; some programs will not print a saved copy. Only its maker can change that.'
		});
	if (facts.encrypted && !facts.permits.copy)
		findings.push({ code: 'copy-forbidden', text: 'The file itself forbids copying its text. Only its maker can change that.' });
	if (facts.sizes.some((s) => Math.max(s.width, s.height) >= hugeSide))
		findings.push({
			code: 'huge-page',
			text: 'It has a page over 100 inches long: it is shown made smaller, and cannot be printed at its own size on a usual printer.'
		});
	if (facts.pages > manyPages)
		findings.push({
			code: 'many-pages',
			text: `It has ${facts.pages.toLocaleString('en')} pages; the sizes of those after the first ${manyPages} were not measured. Parts would be easier to read.`
		});
	return { status: findings.length ? 'look' : 'sound', findings };
}

const refused = (finding: Finding): Condition => ({ status: 'refused', findings: [finding] });

/** The facts of a file that nobody has the password of yet. */
export function lockedFacts(version: string): Facts {
	return {
		version,
		pages: 0,
		sizes: [],
		title: null,
		author: null,
		subject: null,
		createdAt: null,
		changedAt: null,
		producer: null,
		encrypted: true,
		permits: { print: false, copy: false },
		tagged: false,
		language: null,
		guessed: null,
		form: false,
		xfa: false,
		signed: false,
		active: [],
		attachments: [],
		outline: [],
		text: 'no',
		textPages: 0,
		repaired: false
	};
}
