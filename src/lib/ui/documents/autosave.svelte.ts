// Words that are saved as one types: what is being saved, what is saved, and what puts it back.

/** Ms without a key before what was typed is saved. */
const pause = 700;

/** Saves a field a moment after the last key, one request at a time, and says how it stands. */
export class Autosave {
	/** What the field shows. */
	text = $state('');
	state = $state<'still' | 'typing' | 'saving' | 'saved' | 'refused'>('still');
	trouble = $state('');
	#saved = '';
	#before = $state<string | null>(null);
	#sending = false;
	#timer: ReturnType<typeof setTimeout> | undefined;
	readonly #send: (text: string) => Promise<void>;
	readonly #refuses: (text: string) => string | null;

	/** `send` saves a text and throws an error with a sentence where it is refused; `refuses` says what cannot be sent at all. */
	constructor(text: string, send: (text: string) => Promise<void>, refuses: (text: string) => string | null = () => null) {
		this.text = text;
		this.#saved = text;
		this.#send = send;
		this.#refuses = refuses;
	}

	/** What the text was before it was last changed here, where there is anything to put back. */
	get before(): string | null {
		return this.#before;
	}

	/** A text that came from elsewhere: shown, unless somebody is typing. */
	take(text: string): void {
		if (this.state === 'typing' || this.state === 'saving' || this.state === 'refused' || text === this.#saved) return;
		this.#saved = text;
		this.text = text;
	}

	typed(): void {
		this.state = 'typing';
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.save(), pause);
	}

	async save(): Promise<void> {
		clearTimeout(this.#timer);
		// what is typed meanwhile is saved once this is
		if (this.#sending) return;
		const text = this.text;
		if (text === this.#saved) {
			if (this.state === 'typing') this.state = 'still';
			return;
		}
		const refused = this.#refuses(text);
		if (refused) {
			this.state = 'refused';
			this.trouble = refused;
			return;
		}
		this.state = 'saving';
		this.#sending = true;
		const was = this.#saved;
		try {
			await this.#send(text);
			this.#saved = text;
			this.#before ??= was;
			this.state = 'saved';
		} catch (error) {
			this.state = 'refused';
			this.trouble = (error as Error).message;
		} finally {
			this.#sending = false;
		}
		if (this.text !== text) this.typed();
	}

	/** Puts back what stood here before the first change. */
	async undo(): Promise<void> {
		if (this.#before === null) return;
		this.text = this.#before;
		this.#before = null;
		await this.save();
		this.#before = null;
		this.state = 'still';
	}
}
