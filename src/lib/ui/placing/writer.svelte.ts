// A page while it is written, whichever its layout: saved as one writes, published now or later, its mismatches always at hand.
import { tick, untrack } from 'svelte';
import { refresh } from '$lib/ui/parts/refresh';
import type { DoorChange } from '#core/access/door';
import { silentPictures, type Article, type Layout, type PageContent, type PictureAttrs } from '#core/placing/content';
import type { Language } from '#core/words/words';
import type { Remedy } from '#core/placing/mismatch';
import type { MismatchJson } from '$lib/server/placing/mismatches';
import type { PageDraft } from '$lib/server/placing/views';
import { act } from '$lib/ui/parts/act';
import { notify } from '$lib/ui/parts/notices.svelte';
import { setBeside, type Meanwhile } from './meanwhile';
import { ApiTrouble, call, troubleOf, type Given } from '$lib/ui/parts/api';

type PageChange = Given<'patch /pages/{path}'>['body'];
type Publishing = Given<'post /pages/{path}/publish'>['body'];

/** Ms after the last change at which the draft is saved. */
const pause = 900;

/** A page being written: what is kept as draft, what is published, and what to ask before that. */
export class Writer {
	readonly id: string;
	readonly layout: Layout;
	title = $state('');
	path = $state('');
	inNavigation = $state(false);
	/** Its few words in the navigation; none gives its title. */
	label = $state('');
	/** In which readers are spoken to on the page; null goes by the site's. */
	language = $state<Language | null>(null);
	savedAt = $state('');
	publishedAt = $state<string | null>(null);
	publishAt = $state<string | null>(null);
	changed = $state(false);
	saving = $state<'saved' | 'waiting' | 'saving' | 'trouble'>('saved');
	trouble = $state<string | null>(null);
	mismatches = $state.raw<readonly MismatchJson[]>([]);
	/** Dead ends that publishing asks about. */
	asks = $state.raw<{ deadEnds: readonly MismatchJson[]; at?: string } | null>(null);
	/** Pictures of which nothing is said, which publishing asks about. */
	silent = $state.raw<{ pictures: readonly PictureAttrs[]; at?: string } | null>(null);
	/** What somebody else saved while one wrote here: one of the two is to be chosen. */
	meanwhile = $state.raw<Meanwhile | null>(null);
	/** That question stands over the page. */
	choosing = $state(false);
	/** Somebody set the page aside while one wrote here. */
	aside = $state(false);
	/** Says in the text what a picture shows; its editor puts it in. */
	describe: (picture: string, alt: string) => void = () => {};
	#content: () => unknown = () => undefined;
	/** The draft as it was last kept, as text. */
	#kept = '';
	#draftNumber: number;
	/** As it was last loaded. */
	#loaded: PageDraft;
	/** Where the API has the page: by the path under which it was last kept. */
	#savedPath: string;
	#timer: ReturnType<typeof setTimeout> | undefined;
	#running: Promise<boolean> = Promise.resolve(true);

	/** Where the site's front page is written; null where it has none. */
	readonly #front: string | null;

	constructor(draft: PageDraft, mismatches: readonly MismatchJson[], front: string | null) {
		this.#front = front;
		this.#loaded = draft;
		this.aside = draft.setAsideAt !== null;
		this.id = draft.id;
		this.layout = draft.layout;
		this.title = draft.title;
		this.path = draft.path;
		this.inNavigation = draft.inNavigation;
		this.label = draft.label ?? '';
		this.language = draft.language;
		this.savedAt = draft.draftAt;
		this.publishedAt = draft.publishedAt;
		this.publishAt = draft.publishAt;
		this.changed = draft.changed;
		this.#draftNumber = draft.draftNumber;
		this.#savedPath = draft.path;
		this.mismatches = mismatches;
	}

	/** Gives the content as it is to be kept; each editor puts its own in, with what it begins with. */
	get content(): () => unknown {
		return this.#content;
	}
	set content(content: () => unknown) {
		this.#content = content;
		this.#kept = untrack(() => JSON.stringify(this.draft()));
	}

	/** What is to be saved, as it stands here. */
	draft() {
		return {
			title: this.title,
			path: this.path,
			// each editor gives what its layout has; the server checks it
			content: this.#content() as PageContent,
			inNavigation: this.inNavigation,
			label: this.label.trim() || null,
			language: this.language
		};
	}

	/** Something was changed: saved in a moment. */
	touch = (): void => {
		this.saving = 'waiting';
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.#keep(), pause);
	};

	/** Saves once what is being saved is through; true when the draft is safe. Where somebody else saved meanwhile, it is asked about (again). */
	save = (): Promise<boolean> => {
		this.meanwhile = null;
		return this.#keep();
	};

	#keep(): Promise<boolean> {
		clearTimeout(this.#timer);
		this.#running = this.#running.then(async () => {
			if (this.saving === 'saved') return true;
			// asked about, and not chosen yet
			if (this.meanwhile) {
				this.saving = 'trouble';
				return false;
			}
			const draft = this.draft();
			const text = JSON.stringify(draft);
			// an editor tells of a change also where it only put in order what it was given, and where one was taken back
			if (text === this.#kept) {
				this.saving = 'saved';
				this.trouble = null;
				return true;
			}
			this.saving = 'saving';
			try {
				const answer = await this.#change({
					...draft,
					draftNumber: this.#draftNumber
				});
				this.#kept = text;
				this.#savedPath = answer.path;
				this.#draftNumber = answer.draftNumber;
				this.savedAt = answer.draftAt;
				this.mismatches = answer.mismatches;
				this.changed = this.publishedAt !== null;
				this.trouble = null;
				// typing that went on meanwhile waits for its own save
				if ((this.saving as string) === 'saving') this.saving = 'saved';
				return true;
			} catch (error) {
				this.saving = 'trouble';
				// what shows it may not be had just now: the next save asks again, and none may be lost behind one that failed
				this.trouble =
					(await this.#changedMeanwhile(error).catch(() => null)) ?? `${troubleOf(error)} What you wrote is still here; saving is tried again as you write.`;
				return false;
			}
		});
		return this.#running;
	}

	/** Where the page is not as it was when writing began: shows what it is now, and gives the words for it; null where that is not the trouble. */
	async #changedMeanwhile(error: unknown): Promise<string | null> {
		if (!(error instanceof ApiTrouble) || (error.code !== 'changed-meanwhile' && error.code !== 'not-found')) return null;
		await refresh('page');
		await tick();
		const there = this.#loaded;
		this.#savedPath = there.path;
		this.aside = there.setAsideAt !== null;
		if (this.aside) return 'This page was set aside meanwhile. What you wrote is still here; restored, the page takes it.';
		if (there.draftNumber === this.#draftNumber) return null;
		this.meanwhile = await setBeside(there, this.draft());
		this.choosing = true;
		return 'Not saved: this page was saved in another place meanwhile. What you wrote is still here, until you choose.';
	}

	/** Saves what stands here over what somebody else saved. Taken back, that is the draft again; `anew` then begins the editor with it. */
	keepMine = async (anew: () => Promise<void>): Promise<void> => {
		const theirs = this.meanwhile?.theirs;
		if (!theirs) return;
		this.meanwhile = null;
		this.#draftNumber = theirs.draftNumber;
		this.saving = 'waiting';
		if (!(await this.save())) return;
		const { title, path, content, inNavigation, label, language } = theirs;
		const back = () => this.#change({ title, path, content, inNavigation, label, language });
		await act('Yours is the draft now.', () => Promise.resolve(), back, { show: (_, undone) => (undone ? anew() : undefined) });
	};

	/** Begins with what somebody else saved. Taken back, what stood here is the draft. */
	takeTheirs = async (anew: () => Promise<void>): Promise<void> => {
		this.meanwhile = null;
		const mine = this.draft();
		this.#letGo();
		await act(
			'The page goes on from what was saved there.',
			() => Promise.resolve(),
			() => this.#change(mine),
			{ show: anew }
		);
	};

	/** Makes what stands here a page of its own, unpublished, and goes on with what somebody else saved. */
	mineApart = async (anew: () => Promise<void>): Promise<void> => {
		const { title, path, content, language } = this.draft();
		const made = await act(
			'',
			() => this.#pageApart({ title, content, language, layout: this.layout, inNavigation: false }, path === '/' ? '/front' : path),
			null,
			{
				show: () => {}
			}
		);
		if (!made) return;
		this.meanwhile = null;
		this.#letGo();
		await anew();
		notify(`What you wrote is the draft of ${made} now.`, { next: { words: 'Show the pages', href: '/desk/pages' } });
	};

	/** Makes a page at the first free path after another's; gives its path. */
	async #pageApart(given: Omit<Given<'post /pages'>['body'], 'path'>, beside: string, n = 2): Promise<string> {
		try {
			return (await call('post /pages', { body: { ...given, path: `${beside}-${n}` } })).path;
		} catch (error) {
			if (!(error instanceof ApiTrouble) || error.code !== 'address-taken' || n > 50) throw error;
			return this.#pageApart(given, beside, n + 1);
		}
	}

	/** Nothing more of this editor is saved: another begins. */
	#letGo(): void {
		this.stop();
		this.saving = 'saved';
		this.trouble = null;
	}

	/** Brings a page that was set aside back, with what stands here. */
	restore = async (): Promise<void> => {
		await act(`“${this.title}” is restored.`, () => call('post /pages/{path}/restore', { path: { path: this.#savedPath } }), null, {
			show: async () => {
				this.aside = false;
				await this.save();
				this.trouble = null;
				await refresh('page');
			}
		});
	};

	#change = (change: PageChange) => call('patch /pages/{path}', { path: { path: this.#savedPath }, body: change });

	/** Publishes, now or `at` an instant; where somebody would be turned away, or nothing is said of a picture, asks first. */
	publish = async ({ anyway = false, at }: { anyway?: boolean; at?: string } = {}): Promise<void> => {
		if (!(await this.save())) return;
		const pictures = this.layout === 'article' && !anyway ? silentPictures(this.#content() as Article) : [];
		this.silent = pictures.length ? { pictures, at } : null;
		if (pictures.length) return;
		await this.#out({ published: true, ask: !anyway, at }, at ? 'It is published when its time comes.' : `Published at ${this.path}`, at);
	};
	takeDown = (): Promise<void> => this.#out({ published: false }, 'Taken down. The draft is still here.');
	callOff = (): Promise<void> => this.#out({ published: false, at: null }, 'It is not published by itself any more.');

	async #out(body: Publishing, done: string, at?: string): Promise<void> {
		const before = this.publishedAt;
		await act(
			({ asks }) => (asks ? '' : done),
			() => this.#publish(body),
			before !== null && 'published' in body && body.published === false ? () => this.publish({ anyway: true }) : null,
			{
				show: ({ asks, publishedAt, publishAt }, undone) => {
					if (undone) return;
					this.asks = asks ? { deadEnds: asks, at } : null;
					if (asks) return;
					this.publishedAt = publishedAt;
					this.publishAt = publishAt;
					if (this.publishedAt && !at) this.changed = false;
				},
				// a page that comes out for the first time is not met anywhere yet
				next: ({ asks, publishedAt }) =>
					!asks && publishedAt !== null && before === null && this.#front !== null && this.#front !== this.id && this.layout !== 'pocket'
						? { words: 'Put a teaser on the front page', href: `/desk/pages/${this.#front}?teaser=${encodeURIComponent(this.path)}` }
						: undefined
			}
		);
	}

	/** Publishes or takes down. Where there are dead ends that are to be asked about first, nothing is done, and `asks` has them. */
	async #publish(body: Publishing): Promise<{ publishedAt: string | null; publishAt: string | null; asks?: readonly MismatchJson[] }> {
		try {
			return await call('post /pages/{path}/publish', { path: { path: this.#savedPath }, body });
		} catch (error) {
			if (!(error instanceof ApiTrouble) || error.code !== 'dead-ends') throw error;
			const { items } = await call('get /mismatches', { query: { draft: '', page: this.path } });
			const { publishedAt, publishAt } = this;
			const asked = error.facts.documents?.split(', ') ?? [];
			return { publishedAt, publishAt, asks: items.filter(({ kind, document }) => kind === 'dead-end' && asked.includes(document)) };
		}
	}

	changeDoor = async (change: DoorChange): Promise<void> => {
		const set = (door: DoorChange | undefined) => this.#change({ door });
		const back = async ({ before }: Awaited<ReturnType<typeof set>>) => {
			this.mismatches = (await set(before.door)).mismatches;
		};
		await act(`Door of “${this.title}” set.`, () => set(change), back, {
			show: async ({ mismatches }, undone) => {
				if (!undone) this.mismatches = mismatches;
				await refresh();
			}
		});
	};

	/** Does what a remedy says about a mismatch. What changes the content itself the editor does. */
	mend = async (found: MismatchJson, remedy: Remedy, why?: string): Promise<void> => {
		if (!(await this.save())) return;
		await mendMismatch(found, remedy, why, this.refresh);
	};

	/** Takes what was loaded of a draft; of one that was saved since, the save has told more. */
	loaded(draft: PageDraft, mismatches: readonly MismatchJson[]): void {
		this.#loaded = draft;
		if (draft.draftNumber >= this.#draftNumber) this.mismatches = mismatches;
	}

	/** Shows how things stand by now; the page hands the mismatches on. */
	refresh = async (): Promise<void> => {
		await this.save();
		await refresh();
	};

	stop = (): void => clearTimeout(this.#timer);
}

export const remedyWords: Record<Remedy, string> = {
	restore: 'Restore the document',
	'page-door': 'Give it the page’s door',
	admit: 'Admit them to the document',
	follow: 'Let it follow the page',
	narrow: 'Narrow the page to those',
	locked: 'Show the others a locked card',
	'take-out': 'Take the placement out',
	intended: 'It is meant to be'
};

/** Mends a mismatch by the API and offers undo where a door was changed; `after` shows how things then stand. */
export async function mendMismatch(found: MismatchJson, remedy: Remedy, why: string | undefined, after: () => Promise<unknown>): Promise<void> {
	const { page, document, placement } = found;
	const done: Record<Remedy, string> = {
		restore: `“${found.documentTitle}” is restored.`,
		'page-door': `“${found.documentTitle}” has the page’s door.`,
		admit: `“${found.documentTitle}” admits them.`,
		follow: `“${found.documentTitle}” follows the page.`,
		narrow: `“${found.pageTitle}” has the document’s door.`,
		locked: 'The others see a locked card.',
		'take-out': 'The placement is taken out.',
		intended: 'Marked as meant to be.'
	};
	// what changes the content of a page is undone in its editor, or by an earlier revision
	const undone = remedy !== 'restore' && remedy !== 'locked' && remedy !== 'take-out';
	await act(
		done[remedy],
		() => call('post /mismatches', { body: { page, document, placement, remedy, ...(why ? { why } : {}) } }),
		undone
			? ({ before }) =>
					before.document
						? call('patch /documents/{slug}', { path: { slug: document }, body: { door: before.document } })
						: before.page
							? call('patch /pages/{path}', { path: { path: page }, body: { door: before.page } })
							: call('post /mismatches', { body: { page, document, remedy, undo: true } })
			: null,
		{ show: () => after() }
	);
}

/** How many of whom, in words: 'anyone', '12 of 14 people today'. */
export const audienceSaid = ({ audience }: MismatchJson): string =>
	audience.anyone
		? 'anyone without a sign-in too'
		: audience.people
			? `${audience.people} of ${audience.of} ${audience.of === 1 ? 'person' : 'people'} today`
			: 'nobody of today';
