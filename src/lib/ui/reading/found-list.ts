// The words around what was found, page by page, as far as a list is of use.
import type { Around } from '#core/reading/found';
import type { FindState } from './finder';

/** Finds of which a list is of use. */
const mostListed = 200;

export type FoundOn = readonly { readonly page: number; readonly around: readonly Around[] }[];

/** The list of one find: while pages are still looked through it is asked for often, and words once read are kept. */
export class FoundList {
	readonly #around = new Map<number, readonly Around[]>();
	#listed = '';

	/** Forgets what was found: another find begins. */
	clear(): void {
		this.#around.clear();
		this.#listed = '';
	}

	/** What is listed of a find, read by `around` where it is not known yet; null where it is as before, or another was asked for meanwhile. */
	async list({ pages }: FindState, around: (page: number) => Promise<readonly Around[]>): Promise<FoundOn | null> {
		let before = 0;
		const wanted = [...pages].filter(([, count]) => (before += count) - count < mostListed);
		const listed = wanted.join(' ');
		if (listed === this.#listed) return null;
		this.#listed = listed;
		await new Promise((go) => setTimeout(go, 120));
		for (const [page, count] of wanted) {
			if (this.#around.get(page)?.length === count) continue;
			const words = await around(page).catch(() => []);
			if (listed !== this.#listed) return null;
			this.#around.set(page, words);
		}
		return listed === this.#listed ? wanted.map(([page]) => ({ page, around: this.#around.get(page) ?? [] })) : null;
	}
}
