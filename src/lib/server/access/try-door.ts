// Trying a door: what a visitor, a member, a member of a group or a key's holder would get, now or at another moment.
import { decide, visitor, type Action, type Decision, type Who } from '#core/access/decide';
import type { Guarded } from '#core/access/door';
import { isInstant } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { groupIds } from '../people/memberships';
import { personAt, type Caller } from '../people/who';
import { db } from '../db/client';
import { documentOfKey, keyOf } from './keys';

export interface Tried {
	readonly allowed: boolean;
	readonly reasons: readonly { readonly code: string; readonly group?: string; readonly key?: string; readonly at?: string }[];
	readonly changesAt: string | null;
}

/** Whom `as` names: `visitor`, `member:<email>`, `group:<slug>`, `key:<id>`. Throws where there is nobody of that name. */
export async function whoOf(as: string, documentId: string): Promise<Who> {
	const [kind, name] = [as.split(':', 1)[0]!, as.slice(as.indexOf(':') + 1)];
	switch (kind) {
		case 'visitor':
			return visitor;
		case 'member': {
			const caller = await personAt(name);
			if (!caller) throw new IanuaError('person-unknown', { email: name });
			return caller.who;
		}
		case 'group': {
			// groupIds throws where a group is not there
			const id = (await groupIds(db(), [name])).get(name)!;
			return { kind: 'member', id: '', suspended: false, memberships: [{ group: id, span: { from: null, until: null } }] };
		}
		default:
			return { ...visitor, keys: [await keyOf(name, documentId)] };
	}
}

/** The shape of `as`, and of an instant beside it, as addresses carry them. */
const asPattern = /^(?:visitor|member:.{3,320}|group:[a-z0-9-]{1,120}|key:[0-9a-f-]{36})$/;

/**
 * The caller that `?try=<as>&at=<instant>` stands for: whom staff put in their own place to see a page as they would. Null where the
 * parameters are none of these; throws where there is nobody of that name.
 */
export async function trialOf(params: URLSearchParams): Promise<Caller | null> {
	const as = params.get('try') ?? '';
	if (!asPattern.test(as)) return null;
	const asked = params.get('at') ?? '';
	const at = isInstant(asked) ? Date.parse(asked) : Date.now();
	if (as.startsWith('member:')) {
		const caller = await personAt(as.slice(7));
		if (!caller) throw new IanuaError('person-unknown', { email: as.slice(7) });
		return { ...caller, trial: { at, key: null } };
	}
	if (as.startsWith('key:')) {
		const documentId = await documentOfKey(as.slice(4));
		return { who: visitor, person: null, trial: { at, key: { documentId, held: await keyOf(as.slice(4), documentId) } } };
	}
	return { who: await whoOf(as, ''), person: null, trial: { at, key: null } };
}

export async function tryDoor(thing: Guarded, documentId: string, query: { as: string; action?: Action; at?: string }): Promise<Tried> {
	const who = await whoOf(query.as, documentId);
	return toTried(decide(who, thing, query.action ?? 'read', query.at ? Date.parse(query.at) : Date.now()));
}

/** A decision as the API and the desk tell it. */
export const toTried = ({ allowed, reasons, changesAt }: Decision): Tried => ({
	allowed,
	reasons: reasons.map(({ code, group, key, at }) => ({
		code,
		...(group ? { group } : {}),
		...(key ? { key } : {}),
		...(at !== undefined ? { at: new Date(at).toISOString() } : {})
	})),
	changesAt: changesAt === null ? null : new Date(changesAt).toISOString()
});
