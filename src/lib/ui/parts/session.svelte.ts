// Signing in again where one is, when the session has gone: whatever was pressed waits for it, and is carried out then.

interface Asked {
	readonly answered: Promise<boolean>;
	answer(signedIn: boolean): void;
}

export const session = $state<{ asked: Asked | null }>({ asked: null });

/** Asks to sign in again. True once that is done, false where it is given up. All who ask meanwhile wait for the same answer. */
export function signInAgain(): Promise<boolean> {
	if (!session.asked) {
		let answer: (signedIn: boolean) => void = () => {};
		const answered = new Promise<boolean>((done) => (answer = done));
		session.asked = {
			answered,
			answer(signedIn) {
				session.asked = null;
				answer(signedIn);
			}
		};
	}
	return session.asked.answered;
}
