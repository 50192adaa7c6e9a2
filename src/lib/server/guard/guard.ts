// Asks the table: whom a route admits, what a refused one is told, and the second lock that stands at the head of whatever is not for everyone.
import { error } from '@sveltejs/kit';
import { IanuaError, type ErrorCode } from '#core/errors';
import { grants, reaches, type Scope } from '#core/people/scope';
import type { Caller, Person } from '../people/who';
import { table, type Admits, type Entry } from './table';

const looking = new Set(['GET', 'HEAD', 'OPTIONS']);
/** Whether a method only looks (RFC 9110, 9.2.1). */
export const looks = (method: string): boolean => looking.has(method);

/** The entry of a route; null where it has none, or where there is no route. */
export const entryOf = (routeId: string | null): Entry | null => (routeId === null ? null : (table[routeId] ?? null));

/** The scopes that a route asks of a token for a method. */
export const scopesFor = (entry: Entry, method: string): readonly Scope[] => (looks(method) ? entry.looks : entry.does) ?? [];

const isNear = (address: string): boolean => /^(?:127\.|::1$|::ffff:127\.)/.test(address);

function admitted(admits: Admits, { who, person }: Caller, address: string): ErrorCode | null {
	switch (admits) {
		case 'everyone':
			return null;
		case 'near':
			return isNear(address) || who.kind === 'staff' ? null : 'not-found';
		case 'member':
			return person ? null : 'sign-in';
		case 'staff':
			return !person ? 'sign-in' : who.kind === 'staff' ? null : 'staff-only';
		case 'owner':
			return !person ? 'sign-in' : who.kind !== 'staff' ? 'staff-only' : person.role === 'owner' ? null : 'owner-only';
	}
}

/** Why a caller does not come to a route by a method, as a code of the catalogue; null where they do. */
export function refusalAt(entry: Entry | null, method: string, caller: Caller, address: string): ErrorCode | null {
	if (!entry) return 'not-found';
	const admits = looks(method) ? entry.admits : (entry.changes ?? entry.admits);
	const refused = admitted(admits, caller, address);
	if (refused || !caller.token || admits === 'everyone') return refused;
	if (!grants(caller.token, scopesFor(entry, method))) return 'token-scope';
	return caller.token.folders && !entry.folders ? 'token-folder' : null;
}

/** Holds a program that is bound to folders to them, where the route does so itself: throws `token-folder` outside them. */
export function inFolders({ locals }: Pick<Asks, 'locals'>, folder: string): void {
	if (locals.caller.token && !reaches(locals.caller.token, folder)) throw new IanuaError('token-folder');
}

/** What a lock is asked about: every event of the framework has it. */
interface Asks {
	readonly locals: { readonly caller: Caller };
	getClientAddress(): string;
}

function lock(event: Asks, admits: Admits): Person | null {
	const { caller } = event.locals;
	const refused = admitted(admits, caller, event.getClientAddress());
	if (!refused) return caller.person;
	const known = new IanuaError(refused);
	error(known.status, { code: known.code, message: known.message });
}

/** Whoever a lock let in that admits people alone; none is a fault of ours. */
function known(person: Person | null): Person {
	if (!person) throw new Error('a lock for people let nobody in');
	return person;
}

/** The person who asks, or 401. */
export const member = (event: Asks): Person => known(lock(event, 'member'));
/** The member of staff who asks, or 401 or 403. */
export const staff = (event: Asks): Person => known(lock(event, 'staff'));
/** The owner who asks, or 401 or 403. */
export const owner = (event: Asks): Person => known(lock(event, 'owner'));
/** Goes on for staff and for whoever asks from the machine itself; 404 for all others. */
export const near = (event: Asks): void => void lock(event, 'near');
