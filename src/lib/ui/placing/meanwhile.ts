// What somebody else saved of a page beside what stands here unsaved: how the two differ.
import type { Comparison } from '#core/documents/compare';
import { contentLines } from '#core/placing/content';
import type { PageDraft } from '$lib/server/placing/views';

const aspects = { path: 'the path', inNavigation: 'whether it stands in the navigation', label: 'what it is called there', language: 'its language' } as const;
type Aspect = keyof typeof aspects;

export type Mine = Pick<PageDraft, 'title' | 'content' | Aspect>;

export interface Meanwhile {
	readonly theirs: PageDraft;
	/** From theirs to one's own, block by block. */
	readonly comparison: Comparison;
	/** What else differs, in words. */
	readonly besides: readonly string[];
}

export async function setBeside(theirs: PageDraft, mine: Mine): Promise<Meanwhile> {
	// seldom wanted: it comes when it is
	const { comparePages } = await import('#core/documents/compare');
	const said = ({ title, content }: Mine) => [title, ...contentLines(theirs.layout, content)];
	return {
		theirs,
		comparison: comparePages(said(theirs), said(mine)),
		besides: (Object.keys(aspects) as Aspect[]).filter((name) => theirs[name] !== mine[name]).map((name) => aspects[name])
	};
}
