// The one catalogue of errors: code, HTTP status, words. Routes, screens and tests share the codes.
// What a door refuses is worded in access/refusal.ts; the codes stand here as well, so that an answer has one shape.

/** Every error a caller may meet. `words` is a sentence for a person; `{name}` is filled from the error's facts. */
export const catalogue = {
	'not-found': { status: 404, words: 'There is nothing here for you at this address.' },
	gone: { status: 410, words: 'This was here once and has been taken away.' },
	'sign-in': { status: 401, words: 'Sign in to go on.' },
	'staff-only': { status: 403, words: 'Only staff may do this.' },
	'owner-only': { status: 403, words: 'Only an owner of the site may do this.' },
	'token-scope': { status: 403, words: 'This token may not do that: it lacks a scope that this asks for.' },
	'token-folder': { status: 403, words: 'This token is bound to folders, and this lies outside them.' },
	'foreign-origin': { status: 403, words: 'The request came from another website and was not carried out.' },
	'not-valid': { status: 422, words: 'Something in what was sent is not right: {detail}.' },
	'not-json': { status: 400, words: 'What was sent cannot be read as JSON.' },
	'no-file': { status: 400, words: 'No file was sent: the form needs a field named “file”.' },
	'file-empty': { status: 422, words: '“{name}” is empty: it has no bytes in it. Export it again and bring in the new file.' },
	'file-not-pdf': { status: 415, words: '“{name}” is {kind}, not a PDF. Export it as PDF and bring that in.' },
	'file-locked': {
		status: 422,
		words: '“{name}” is locked with a password, so nobody could read it here. Save a copy without the password and bring that in.'
	},
	'file-damaged': { status: 422, words: '“{name}” is damaged: no page of it can be shown. Export it again and bring in the new file.' },
	'file-too-large': { status: 413, words: '“{name}” is larger than the {limit} this site takes.' },
	'no-room': { status: 507, words: 'The server has no room left for files. Nothing that is here was harmed; staff of the server have to make room.' },
	'same-edition': { status: 409, words: '“{name}” is the edition in force already, to the last byte.' },
	'edition-unknown': { status: 422, words: 'There is no edition {number} of this document.' },
	'edition-not-shown': { status: 422, words: 'Edition {number} cannot be shown, so it is not put in force.' },
	'still-checking': { status: 409, words: 'This document is still being checked. Try again in a moment.' },
	'own-password-wrong': { status: 422, words: 'That is not your password.' },
	'password-wrong': { status: 422, words: 'That password does not open the file.' },
	'not-locked': { status: 409, words: 'This document is not locked.' },
	'not-cleaned': { status: 422, words: 'The active content could not be taken out of this file. The original stays as it is.' },
	'nothing-to-clean': { status: 409, words: 'This document carries no active content.' },
	'cannot-be-shown': { status: 409, words: 'This document cannot be shown at the moment.' },
	'restore-too-late': { status: 410, words: 'This was set aside more than 30 days ago and cannot be brought back.' },
	'picture-unusable': { status: 422, words: 'That is not a picture that can be used. PNG, JPEG and WebP can.' },
	'colour-unreadable': {
		status: 422,
		words: '{colour} is too close to {on} to be read ({ratio} to 1, at least 4.5 is needed). The nearest that passes is {passes}.'
	},
	'icon-unknown': { status: 422, words: 'There is no icon “{name}”.' },
	'web-address': { status: 422, words: '“{url}” is not a web address that begins with http:// or https://.' },
	'web-private': { status: 422, words: '“{host}” leads into a private network, which nothing here calls.' },
	'web-gone': { status: 422, words: 'There is nothing at that address: it answered {answer}.' },
	'web-unreachable': { status: 422, words: 'That address could not be reached: {detail}.' },
	'web-redirects': { status: 422, words: 'That address leads on more than five times; give the last one.' },
	'web-too-slow': { status: 422, words: 'The file did not arrive within {seconds} s.' },
	'no-source': { status: 409, words: 'This document was not fetched from a web address.' },
	'name-taken': { status: 409, words: 'There is one called “{name}” already.' },
	'knock-answered': { status: 409, words: 'Somebody has answered this knock already.' },
	'stamp-not-made': { status: 409, words: 'A copy with your name on it could not be made of this file. It may be read here.' },
	'table-unreadable': { status: 422, words: 'The table cannot be read: {detail}.' },
	'table-wrong': { status: 422, words: 'Nothing was changed, because lines of the table are wrong ({count}): {detail}' },
	'invitation-over': { status: 410, words: 'This invitation has been used, withdrawn, or is older than 7 days. Ask for a new one.' },
	'last-owner': { status: 409, words: 'A site needs an owner: make somebody else one first.' },
	'upload-cut-off': { status: 400, words: 'The upload broke off before the end. Nothing was kept; bring the file in again.' },
	'upload-begun': { status: 409, words: 'This upload has begun already: go on with it.' },
	'zero-byte': { status: 422, words: 'Something in what was sent is not right: there is a character of value zero in it.' },
	'body-without-length': { status: 411, words: 'What was sent does not say how long it is.' },
	'body-too-large': { status: 413, words: 'What was sent is larger than this address takes.' },
	'address-taken': { status: 409, words: 'The address “{slug}” belongs to something else already.' },
	'group-unknown': { status: 422, words: 'There is no group “{slug}”.' },
	'person-unknown': { status: 422, words: 'Nobody here has the address “{email}”.' },
	'page-unknown': { status: 422, words: 'There is no page at “{path}”.' },
	'document-unknown': { status: 422, words: 'There is no document “{slug}”.' },
	'email-taken': { status: 409, words: 'Somebody here has the address “{email}” already.' },
	'begin-code': {
		status: 403,
		words: 'That is not the code. It was printed when the server was started, and stands in the file begin-code of its data folder.'
	},
	'owner-exists': { status: 409, words: 'This site has its owner already. Sign in instead.' },
	'dead-ends': { status: 409, words: 'Nothing was published: there would be dead ends ({count}), at {documents}. Publish without “ask” where that is meant.' },
	'changed-meanwhile': {
		status: 409,
		words:
			'{by} saved this page after you opened it ({at}). Nothing of it was written over; look at both, then save with the number of the draft that is there now.'
	},
	'method-not-allowed': { status: 405, words: 'That cannot be done at this address, which takes {allow}.' },
	'precondition-failed': { status: 412, words: 'This is not as it was when you looked at it ({differs}). Nothing was changed: look again.' },
	'idempotency-other': { status: 422, words: 'This Idempotency-Key was sent before with something else. Each press has a key of its own.' },
	'idempotency-open': {
		status: 409,
		words: 'What was asked under this Idempotency-Key has begun and has no answer yet, or had none. Look whether it was done; then ask under another key.'
	},
	'range-not-satisfiable': { status: 416, words: 'The part asked for lies beyond the end of the file.' },
	'set-aside': { status: 404, words: 'There is nothing here for you at this address.' },
	shut: { status: 404, words: 'There is nothing here for you at this address.' },
	'not-yet': { status: 403, words: 'This is not open yet.' },
	closed: { status: 403, words: 'This has closed.' },
	'membership-not-yet': { status: 403, words: 'Your membership has not begun yet.' },
	'membership-lapsed': { status: 403, words: 'Your membership has run out.' },
	'key-unknown': { status: 404, words: 'There is no such key.' },
	'key-withdrawn': { status: 403, words: 'This key has been withdrawn.' },
	'key-lapsed': { status: 403, words: 'This key has run out.' },
	'key-used-up': { status: 403, words: 'This key has been used as often as it may be.' },
	'key-password': { status: 401, words: 'This key wants its password.' },
	'too-many-tries': { status: 429, words: 'Too many tries. Wait a quarter of an hour, then try again.' },
	'pass-refused': { status: 401, words: 'The pass was not taken: {why}.' },
	'website-known': { status: 409, words: '{origin} may give passes already. Change it, or give it another key.' },
	'website-keys': { status: 409, words: 'A website has {most} keys at a time. Withdraw one first.' },
	'not-admitted': { status: 403, words: 'This is for other members.' },
	'save-not-allowed': { status: 403, words: 'This may be read here, but not saved.' },
	'print-not-allowed': { status: 403, words: 'This may be read here, but not printed.' },
	unexpected: { status: 500, words: 'Something went wrong on our side. It has been noted; try again in a moment.' },
	'ledger-closed': {
		status: 503,
		words: 'This cannot be opened just now, because its opening could not be written down. Try again in a moment.'
	},
	'figures-not-whole': { status: 503, words: 'The figures are being made anew from the ledger and are not whole yet. Ask again in a few minutes.' },
	busy: { status: 503, words: 'Too much of this is asked for at once. Try again in a moment.' },
	'not-ready': { status: 503, words: 'The site is not ready: {detail}.' }
} as const satisfies Record<string, { status: number; words: string }>;

export type ErrorCode = keyof typeof catalogue;

/** An expected error: a value of the catalogue with the facts that fill its words. */
export class IanuaError extends Error {
	readonly code: ErrorCode;
	readonly facts: Readonly<Record<string, string>>;

	constructor(code: ErrorCode, facts: Record<string, string> = {}) {
		super(wordsOf(code, facts));
		this.name = 'IanuaError';
		this.code = code;
		this.facts = facts;
	}

	get status(): number {
		return catalogue[this.code].status;
	}
}

/** The catalogue's sentence with its facts filled in. `wordsOf('address-taken', {slug: 'a'})` → 'The address “a” belongs to…'. */
export function wordsOf(code: ErrorCode, facts: Record<string, string> = {}): string {
	return catalogue[code].words.replace(/\{(\w+)\}/g, (_, name: string) => facts[name] ?? '…');
}

/** An RFC 9457 problem-details body for an error of the catalogue; `explained` is the address of a page with a part for each code. */
export function problemOf(error: IanuaError, explained: string, requestId?: string) {
	return {
		type: `${explained}#${error.code}`,
		title: error.message,
		status: error.status,
		code: error.code,
		...(Object.keys(error.facts).length ? { facts: error.facts } : {}),
		...(requestId ? { requestId } : {})
	};
}
