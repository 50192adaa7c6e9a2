// Trying a door: what a visitor, a member, a member of a group or a key's holder would get, now or at another moment.
import { decide, visitor, type Action, type Decision, type Who } from '#core/access/decide';
import type { Thing } from '#core/access/door';
import { IanuaError } from '#core/errors';
import { groupIds } from '../people/service';
import { whoIs } from '../people/who';
import { db } from '../db/client';
import { keyOf } from './keys';

export interface Tried {
	readonly allowed: boolean;
	readonly reasons: readonly { readonly code: string; readonly group?: string; readonly key?: string; readonly at?: string }[];
	readonly changesAt: string | null;
}

/** Whom `as` names: `visitor`, `member:<email>`, `group:<slug>`, `key:<id>`. Throws where there is nobody of that name. */
export async function whoOf(as: string, documentId: string): Promise<Who> {
	const [kind, name = ''] = [as.split(':', 1)[0]!, as.slice(as.indexOf(':') + 1)];
	switch (kind) {
		case 'visitor':
			return visitor;
		case 'member': {
			const who = await whoIs(name);
			if (!who) throw new IanuaError('person-unknown', { email: name });
			return who;
		}
		case 'group': {
			const id = (await groupIds(db(), [name])).get(name)!;
			return { kind: 'member', id: '', suspended: false, memberships: [{ group: id, span: { from: null, until: null } }] };
		}
		default:
			return { ...visitor, keys: [await keyOf(name, documentId)] };
	}
}

export async function tryDoor(thing: Thing, documentId: string, query: { as: string; action?: Action; at?: string }): Promise<Tried> {
	const who = await whoOf(query.as, documentId);
	return triedOf(decide(who, thing, query.action ?? 'read', query.at ? Date.parse(query.at) : Date.now()));
}

const triedOf = ({ allowed, reasons, changesAt }: Decision): Tried => ({
	allowed,
	reasons: reasons.map(({ code, group, key, at }) => ({
		code,
		...(group ? { group } : {}),
		...(key ? { key } : {}),
		...(at !== undefined ? { at: new Date(at).toISOString() } : {})
	})),
	changesAt: changesAt === null ? null : new Date(changesAt).toISOString()
});
