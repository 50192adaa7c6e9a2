// Where to go on after signing in.

/** Only a path of this site: anything else could lead a reader away under our name. */
export function wayOn(to: string | null): string | null {
	return to && /^\/(?![/\\])/.test(to) && !/[\u0000-\u001f]/.test(to) ? to : null;
}
