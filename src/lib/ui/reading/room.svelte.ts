// The state of a reading room and what its tools do; the drawing is left to the components.
import { fragment, soughtBy, toPage, type Fragment } from '#core/reading/fragment';
import type { Paper } from '#core/reading/paper';
import { byTurns, roomForTwo, stepFrom, wayIn, zoomStep, ways, type Fit, type RoomTool, type Way } from '#core/reading/settings';
import { say, writtenFrom, type RoomWords } from '#core/words/words';
import { Reporter } from './reporter';
import { keepChoice, keepPlace, keptChoice, keptPlace } from './kept';
import { turnLeaf } from './turning';
import type { FindOptions, FindState } from './finder';
import { FoundList, type FoundOn } from './found-list';
import type { Place } from './asked';
import type { RoomGiven } from './given';
import { pictureFirst } from './library';
import { Viewer } from './viewer';

export type Panel = 'ways' | 'fit' | 'find' | 'print' | 'more';
const noFind: FindState = { count: 0, at: 0, looked: 0, state: 'none', pages: new Map() };

/** A reading room: its document, the way of showing it, find, and what its panels show. */
export class Room {
	readonly given: RoomGiven;
	viewer = $state.raw<Viewer>();
	page = $state(1);
	/** The page that the room opened with. */
	start = $state(1);
	/** Where one was before the last jump. */
	was = $state<number | null>(null);
	percent = $state(100);
	way = $state<Way>('down');
	cover = $state(true);
	fit = $state<Fit | number>('page');
	theme = $state<'system' | 'light' | 'dark'>('system');
	paper = $state<Paper>('day');
	/** The fore-edge names the chapters. */
	chapters = $state(true);
	panel = $state<Panel | null>(null);
	/** The page to begin with has been drawn sharp. */
	sharp = $state(false);
	started = $state(false);
	trouble = $state<'couldNot' | 'locked' | null>(null);
	withdrawn = $state(false);
	lost = $state(false);
	broken = $state<number[]>([]);
	/** Page at which this browser left the document, while that is offered. */
	left = $state<number | null>(null);
	/** That the reader has given the receipt which is asked of them, in a sentence. */
	receipt = $state<string | null>(null);
	trail = $state<Place[]>([]);
	finding = $state<FindState>(noFind);
	search = $state<FindOptions>({ words: '', wholeWords: false, sameCase: false, sameAccents: false });
	foundOn = $state<FoundOn>([]);
	readonly #list = new FoundList();
	said = $state('');
	/** Pages follow each other from right to left. */
	fromRight = $state(false);
	/** Fields hold what was not saved. */
	written = $state(false);
	readonly #reporter: Reporter;
	#container: HTMLElement | undefined;
	#ended = new AbortController();
	#quietHash = '';

	constructor(given: RoomGiven) {
		this.given = given;
		this.receipt = given.receipt?.given ?? null;
		this.fromRight = given.document.language !== null && writtenFrom(given.document.language) === 'rtl';
		this.#reporter = new Reporter(`/d/${given.document.slug}/read/told?${this.suffix.slice(1)}`, () => this.withdraw());
		({ way: this.way, fit: this.fit, cover: this.cover, theme: this.theme } = given.settings);
	}

	say(name: keyof RoomWords, values: Readonly<Record<string, string | number>> = {}): string {
		return say(this.given.language, this.given.words[name], values);
	}

	has(tool: RoomTool): boolean {
		return this.given.settings.tools.includes(tool);
	}

	get framed(): boolean {
		return this.given.place === 'page' || this.given.place === 'outside';
	}

	get suffix(): string {
		const { from, document } = this.given;
		return `&e=${document.edition}${from ? `&from=${encodeURIComponent(from)}` : ''}`;
	}

	get fileAddress(): string {
		return `/d/${this.given.document.slug}/file`;
	}

	get saveAddress(): string {
		const { from } = this.given;
		return `${this.fileAddress}?save${from ? `&from=${encodeURIComponent(from)}` : ''}`;
	}

	leafAddress(page: number, width: number): string {
		return `/d/${this.given.document.slug}/leaf/${page}.webp?w=${width}${this.suffix}`;
	}

	/** Opens the document in `container`. Gives what ends it. */
	begin(container: HTMLDivElement): () => void {
		const { document: doc } = this.given;
		const kept = keptChoice();
		if (kept.way && this.has('ways')) this.way = kept.way;
		if (kept.fit !== undefined && this.has('fit')) this.fit = kept.fit;
		if (kept.theme) this.theme = kept.theme;
		if (kept.paper) this.paper = kept.paper;
		if (kept.chapters !== undefined) this.chapters = kept.chapters;
		this.started = true;
		this.#container = container;
		const widths = new ResizeObserver(() => (this.narrow = container.clientWidth < roomForTwo));
		widths.observe(container);
		this.narrow = container.clientWidth < roomForTwo;
		this.#ended.signal.addEventListener('abort', () => widths.disconnect());
		const asked = fragment(location.hash);
		this.start = this.page = Math.min(doc.pages, asked.page ?? 1);
		this.#forgetFrom();
		const leftAt = keptPlace(doc.slug);
		if (!this.framed && !location.hash && leftAt && leftAt > 1 && leftAt <= doc.pages) this.left = leftAt;

		this.#reporter.begin(this.#ended.signal);
		this.#listen();
		const first = this.page;
		const opened = pictureFirst(document.querySelector<HTMLImageElement>('.standin img')).then(() =>
			Viewer.open(
				{
					container,
					file: this.given.hasFile ? `${this.fileAddress}?for=reading${this.suffix}` : null,
					opening: first === 1 ? doc.opening : [],
					leaves: { slug: doc.slug, suffix: this.suffix, pages: doc.pages, runs: doc.runs },
					ground: () => this.ground(),
					fromRight: this.fromRight,
					linkName: (page) => this.say('linkTo', { page }),
					pageName: (page) => this.say('pageOf', { page, count: doc.pages }),
					pagesWith: (words) => this.#pagesWith(words)
				},
				{
					page: (page) => this.#turned(page),
					scale: (percent) => (this.percent = percent),
					drawn: (page, trouble) => this.#drawn(page, trouble),
					seen: (shares) => this.#reporter.see(shares),
					find: (state) => this.#found(state),
					followed: (place) => (this.trail = [...this.trail.slice(-49), place]),
					written: (unsaved) => (this.written = unsaved),
					lost: (lost) => (this.lost = lost),
					refused: (why) => (why === 'withdrawn' ? this.withdraw() : (this.trouble ??= 'couldNot'))
				},
				() => ({ way: this.way, cover: this.cover, fit: this.fit, page: this.page })
			)
		);
		opened.then(
			async (viewer) => {
				if (this.#ended.signal.aborted) {
					viewer.close();
					return;
				}
				this.viewer = viewer;
				this.fromRight = viewer.fromRight;
				// a place asked for by the address is none any more where pages were turned before the library came
				if (this.page === first) await this.#obey(asked);
				if (soughtBy(asked).length) this.findWords(soughtBy(asked));
				if (asked.pagemode && asked.pagemode !== 'none') this.panel = 'more';
			},
			(error: unknown) => {
				if (this.withdrawn || this.#ended.signal.aborted) return;
				console.error(error);
				this.trouble = (error as Error).name === 'PasswordException' ? 'locked' : 'couldNot';
			}
		);
		return () => this.#end();
	}

	/** The pages stand in a narrow window. */
	narrow = $state(false);

	/** Ground around a page: none in a frame on a page, which is as high as a page and the sill (core/placing/frame). */
	ground(): { x: number; y: number } {
		if (this.framed) return { x: 0, y: 0 };
		return this.narrow ? { x: 6, y: 6 } : { x: 24, y: 20 };
	}

	#listen() {
		const { signal } = this.#ended;
		addEventListener(
			'hashchange',
			() => {
				if (location.hash === this.#quietHash) return;
				const asked = fragment(location.hash);
				void this.#obey(asked);
				if (soughtBy(asked).length) this.findWords(soughtBy(asked));
			},
			{ signal }
		);
	}

	async #obey(asked: Fragment) {
		await this.viewer?.obey(asked);
		if (this.viewer) this.fit = this.viewer.fit;
	}

	#turned(page: number) {
		this.page = page;
		// passing pages are neither remembered nor told, the one that is stayed on is
		clearTimeout(this.#settling);
		this.#settling = setTimeout(() => this.#settled(page), 250);
	}

	/** Tells that pages go to a printer. */
	tellPrinted(): void {
		this.#reporter.printed();
	}

	#settling: ReturnType<typeof setTimeout> | undefined;
	#settled(page: number) {
		keepPlace(this.given.document.slug, page);
		this.#address();
		this.said = this.say('pageOf', { page, count: this.given.document.pages });
	}

	/** The address names the page, so that it can be handed on; going back leads out of the room, not through its pages. */
	#address() {
		const words = typeof this.search.words === 'string' ? this.search.words.split(/\s+/).filter(Boolean) : this.search.words;
		this.#quietHash = toPage(this.page, words);
		if (location.hash !== this.#quietHash) history.replaceState(history.state, '', this.#quietHash);
	}

	#drawn(page: number, trouble: boolean) {
		if (trouble) {
			if (!this.broken.includes(page)) this.broken = [...this.broken, page];
		} else if (this.broken.includes(page)) this.broken = this.broken.filter((p) => p !== page);
		if (page === this.page || this.viewer) this.sharp = true;
	}

	withdraw() {
		this.withdrawn = true;
		this.panel = null;
		this.viewer?.close();
		this.viewer = undefined;
	}

	go(page: number) {
		const to = Math.min(this.given.document.pages, Math.max(1, Math.round(page)));
		if (Math.abs(to - this.page) > 1) this.was = this.page;
		this.left = null;
		if (!this.viewer) {
			// the library is on its way: the picture of the page stands in for it
			this.start = to;
			if (to !== this.page) this.#turned(to);
			return;
		}
		if (this.way === 'turning' && this.#container) void turnLeaf(this.viewer, this.#container, to);
		else this.viewer.go(to);
	}

	step(direction: 1 | -1) {
		if (!this.viewer) {
			const to = stepFrom(this.page, this.given.document.pages, wayIn(this.way, this.#container?.clientWidth ?? 0), this.cover, direction);
			if (to !== null) this.go(to);
			return;
		}
		this.left = null;
		const next = this.viewer.next(direction);
		if (next === null) return;
		if (this.way === 'turning' && this.#container) void turnLeaf(this.viewer, this.#container, next);
		else this.viewer.go(next);
	}

	setWay(way: Way, cover = this.cover) {
		this.way = way;
		this.cover = cover;
		this.viewer?.setWay(way, cover);
		keepChoice({ way });
	}

	nextWay() {
		this.setWay(ways[(ways.indexOf(this.way) + 1) % ways.length]!);
	}

	setFit(fit: Fit | number) {
		this.fit = fit;
		this.viewer?.setFit(fit);
		keepChoice({ fit });
	}

	zoom(direction: 1 | -1) {
		this.setFit(zoomStep(this.percent, direction));
	}

	zoomAround(factor: number, x: number, y: number) {
		if (!this.viewer || !this.has('fit')) return;
		this.viewer.zoomAround(factor, x, y);
		this.fit = this.viewer.fit;
	}

	turn(quarters: number) {
		this.viewer?.turn(quarters);
	}

	goBack() {
		const place = this.trail.at(-1);
		if (!place) return;
		this.trail = this.trail.slice(0, -1);
		this.viewer?.return(place);
	}

	setTheme(theme: 'system' | 'light' | 'dark') {
		this.theme = theme;
		keepChoice({ theme });
	}

	setPaper(paper: Paper) {
		this.paper = paper;
		keepChoice({ paper });
	}

	setChapters(shown: boolean) {
		this.chapters = shown;
		keepChoice({ chapters: shown });
	}

	findWords(words: string | readonly string[] = this.search.words) {
		this.search = { ...this.search, words };
		this.foundOn = [];
		this.#list.clear();
		if (!words.length) {
			this.finding = noFind;
			this.viewer?.finder.end();
		} else {
			this.finding = { ...noFind, state: 'looking' };
			void this.viewer?.finder.find(this.search);
		}
		this.#address();
	}

	async #pagesWith(words: readonly string[]): Promise<readonly number[]> {
		const asked = new URLSearchParams(this.suffix.slice(1));
		for (const each of words) asked.append('q', each);
		const answer = await fetch(`/d/${this.given.document.slug}/read/found?${asked}`, { signal: this.#ended.signal });
		if (!answer.ok) throw new Error(`no pages were named (${answer.status})`);
		return ((await answer.json()) as { pages: number[] }).pages;
	}

	setSearch(change: Partial<{ wholeWords: boolean; sameCase: boolean; sameAccents: boolean }>) {
		this.search = { ...this.search, ...change };
		this.findWords();
	}

	findNext(direction: 'next' | 'previous') {
		if (this.search.words.length) void this.viewer?.finder.find(this.search, direction);
	}

	get searchText(): string {
		const { words } = this.search;
		return typeof words === 'string' ? words : words.join(' ');
	}

	#found(state: FindState) {
		if (!this.search.words.length) return;
		this.finding = state;
		void this.#list.list(state, async (page) => (await this.viewer?.finder.around(page)) ?? []).then((found) => (this.foundOn = found ?? this.foundOn));
	}

	/** An address that leads to this page: at home the room in the whole window. */
	get share(): string {
		return `${location.origin}/d/${this.given.document.slug}/read${toPage(this.page)}`;
	}

	again() {
		if (!this.viewer) {
			location.reload();
			return;
		}
		this.broken = [];
		this.viewer.again();
	}

	/** What brought the reader here is known by now; an address handed on does not carry it along. */
	#forgetFrom() {
		const address = new URL(location.href);
		if (!address.searchParams.has('from')) return;
		address.searchParams.delete('from');
		history.replaceState(history.state, '', address);
	}

	get byTurns(): boolean {
		return byTurns(this.way);
	}

	#end() {
		this.#reporter.report(true);
		this.#ended.abort();
		clearTimeout(this.#settling);
		this.viewer?.close();
	}
}
