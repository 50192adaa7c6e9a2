// A frame that was refused asks the page around it for a pass (core/access/pass), shows it to us, and opens. The page around it learns why where that
// does not work: in the console, and by a message.

/** Ms after which a second pass of the same frame is taken: where one lets nobody in, the page would be asked for ever. */
const atMostEvery = 60_000;
const triedAt = (path: string): string => `ianua-pass ${path}`;

/** Whether a pass has been tried here a moment ago; where the browser keeps nothing for frames, each opening tries one. */
function justTried(path: string): boolean {
	try {
		const before = Number(sessionStorage.getItem(triedAt(path)) ?? 0);
		sessionStorage.setItem(triedAt(path), String(Date.now()));
		return Date.now() - before < atMostEvery;
	} catch {
		return false;
	}
}

/** Asks for a pass for the frame at a path such as `/embed/a-document`. Gives what ends it. */
export function askForPass(path: string): () => void {
	if (window.parent === window) return () => {};
	const refuse = (why: string, to: string) => {
		console.warn(`Ianua: ${why}`);
		window.parent.postMessage({ type: 'ianua:refused', why }, to);
	};
	// the page asked for the frame by a form, and its pass was refused
	const why = new URLSearchParams(location.hash.slice(1)).get('pass-refused');
	const around = URL.parse(document.referrer)?.origin;
	if (why !== null && around !== undefined) refuse(why, around);
	const taken = async ({ source, origin, data }: MessageEvent) => {
		const { type, pass } = (data ?? {}) as { type?: unknown; pass?: unknown };
		if (source !== window.parent || type !== 'ianua:pass' || typeof pass !== 'string') return;
		window.removeEventListener('message', listen);
		if (justTried(path)) {
			refuse(
				'A pass was taken, and the document is kept from whoever it names all the same: its groups are not let in, or the browser keeps no cookie in this frame.',
				origin
			);
			return;
		}
		const answer = await fetch(`${path}/pass`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ pass, from: origin })
		}).catch(() => null);
		if (answer?.ok) location.reload();
		else
			refuse(((await answer?.json().catch(() => null)) as { title?: string } | null)?.title ?? 'The pass could not be shown: the connection is lost.', origin);
	};
	const listen = (event: MessageEvent) => void taken(event);
	window.addEventListener('message', listen);
	// it holds no secret, so whoever frames may hear it
	window.parent.postMessage({ type: 'ianua:pass-wanted' }, '*');
	return () => window.removeEventListener('message', listen);
}
