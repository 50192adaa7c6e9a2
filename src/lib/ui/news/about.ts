// What a wish for news is about, in words.
import type { NewsWish } from '$lib/server/news/wishes';
import { newsWords } from '$lib/ui/parts/words';

/** 'new editions of “Winter stoppages”', 'everything in Leaflets', 'everything that I may read'. */
export function aboutWords({ document, title, folder }: Pick<NewsWish, 'document' | 'title' | 'folder'>): string {
	if (document !== null) return newsWords('ofDocument', { title: title ?? document });
	return folder === null ? newsWords('all') : newsWords('folder', { folder });
}
