// What the check found, in words: each finding says what it means for a reader.
import type { PageSize } from './paper';

export type ConditionStatus = 'checking' | 'sound' | 'look' | 'refused';

export interface Finding {
	readonly code: 'no-text' | 'active-content' | 'repaired' | 'encrypted' | 'print-forbidden' | 'copy-forbidden' | 'attachments' | 'form';
	readonly text: string;
}

export interface Condition {
	readonly status: ConditionStatus;
	readonly findings: readonly Finding[];
}

/** What the server's check reads out of a file. */
export interface Facts {
	readonly version: string;
	readonly pages: number;
	/** Runs of equal page sizes, merged: how many pages have which size. */
	readonly sizes: readonly (PageSize & { readonly pages: number })[];
	readonly title: string | null;
	readonly author: string | null;
	readonly createdAt: number | null;
	readonly changedAt: number | null;
	readonly producer: string | null;
	readonly encrypted: boolean;
	/** Permission flags of an encrypted file (ISO 32000-1, 7.6.3.2); all true where it is not encrypted. */
	readonly permits: { readonly print: boolean; readonly copy: boolean };
	readonly tagged: boolean;
	readonly language: string | null;
	readonly form: boolean;
	/** Kinds of active content found: 'JavaScript', 'Launch'. */
	readonly active: readonly string[];
	readonly attachments: number;
	/** Words found on the first pages, to tell pictures of pages from text. */
	readonly hasText: boolean;
	/** The structure had to be repaired while reading. */
	readonly repaired: boolean;
}

export const conditionWords: Record<ConditionStatus, string> = {
	checking: 'Being checked',
	sound: 'Sound',
	look: 'Worth a look',
	refused: 'Cannot be shown'
};

/** The condition that facts come to: sound where nothing stands out, else worth a look with the findings. */
export function conditionOf(facts: Facts): Condition {
	const findings: Finding[] = [];
	if (!facts.hasText) {
		findings.push({ code: 'no-text', text: 'The pages are pictures without text: nobody can find words in it or have it read aloud.' });
	}
	if (facts.active.length) {
		findings.push({
			code: 'active-content',
			text: `It carries active content (${facts.active.join(', ')}). The reading room never runs it; a saved copy may.`
		});
	}
	if (facts.repaired)
		findings.push({ code: 'repaired', text: 'Its structure is damaged in places; all pages can be shown, but some programs may refuse a saved copy.' });
	if (facts.encrypted && !facts.permits.print)
		findings.push({ code: 'print-forbidden', text: 'The file itself forbids printing; some programs will not print a saved copy.' });
	if (facts.encrypted && !facts.permits.copy) findings.push({ code: 'copy-forbidden', text: 'The file itself forbids copying its text.' });
	return { status: findings.length ? 'look' : 'sound', findings };
}
