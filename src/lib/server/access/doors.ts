// From rows to the things that core/access decides on, and from a change of a door to rows.
import { eq, sql as raw } from 'drizzle-orm';
import { isDay, isInstant, spanOf, within } from '#core/access/hours';
import { DoorShape, type Door, type DoorChange, type DoorFields, type DoorView, type Position, type Guarded } from '#core/access/door';
import type { Reach } from '#core/access/reach';
import { IanuaError } from '#core/errors';
import type { Queryable } from '../db/client';
import { theRow } from '../db/rows';
import { door, doorGroup, doorPerson, page } from '../db/schema';
import { newId } from '../id';
import { personIds } from '../people/directory';
import { groupIds } from '../people/memberships';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { instantsOf } from './hours';

/** A row of any query that reads a thing: its door, and where it follows a page, that page's, as `thing_in_force` has them. */
export interface GuardedRow {
	readonly set_aside_at: Date | null;
	readonly door: DoorFields;
	readonly follows_door?: DoorFields | null;
	readonly follows_set_aside?: boolean;
	readonly follows_unpublished?: boolean;
}

function doorOf(json: DoorFields, zone: string): Door {
	return { ...json, hours: spanOf(json.from, json.until, zone) };
}

/** The thing a row speaks of. */
export function guardedOf(row: GuardedRow, zone: string): Guarded {
	return {
		setAside: row.set_aside_at !== null,
		door: doorOf(row.door, zone),
		follows: row.follows_door
			? { setAside: row.follows_set_aside === true, unpublished: row.follows_unpublished === true, door: doorOf(row.follows_door, zone) }
			: null
	};
}

/** A door to be shown, with what its sentence is made from: the door in force is the followed page's where there is one, names for ids. */
export interface DoorRow extends DoorView {
	readonly force: Omit<DoorFields, 'allow' | 'turnedAway' | 'stamped'>;
}

/** The reach of a door view: what the sentence is made from. */
export function reachOf(view: DoorRow, zone: string, setAside: boolean): Reach {
	const { from, until, ...force } = view.force;
	return { ...force, allow: view.allow, count: view.count, hours: spanOf(from, until, zone), follows: view.follows?.title ?? null, setAside };
}

/** The position of a reach at an instant: `force` leaves the hours to be looked at. */
export const positionNow = ({ position, hours, setAside }: Reach, at: number): Position => (setAside || within(hours, at) !== 'in' ? 'shut' : position);

/** Puts a new door in and gives its id. */
export async function insertDoor(tx: Queryable, actor: string | null, position: Position = 'shut'): Promise<string> {
	const id = newId();
	await tx.insert(door).values({ id, position, changedBy: actor });
	return id;
}

/** Changes a door; only what is named changes. Writes the audit trail for the thing whose door it is. Gives the change that puts back what was. */
export async function changeDoor(
	tx: Queryable,
	doorId: string,
	change: DoorChange,
	entry: { actor: string | null; kind: 'document' | 'page'; thing: string }
): Promise<DoorChange> {
	const was = await doorBefore(tx, doorId, change);
	const before = theRow(await tx.execute<{ door: DoorFields }>(raw`select door_json(${doorId}) as door`));
	for (const bound of [change.from, change.until]) {
		if (bound && !isDay(bound) && !isInstant(bound)) throw new IanuaError('not-valid', { detail: `“${bound}” is neither a day nor an instant` });
	}
	const [from, until] = [change.from === undefined ? before.door.from : change.from, change.until === undefined ? before.door.until : change.until];
	const hours = spanOf(from, until, 'UTC');
	if (hours.from !== null && hours.until !== null && hours.from >= hours.until)
		throw new IanuaError('not-valid', { detail: 'the hours end before they begin' });

	let followsPage: string | null | undefined;
	if (change.follows !== undefined) {
		if (entry.kind === 'page' && change.follows !== null) throw new IanuaError('not-valid', { detail: 'a page cannot follow another page' });
		followsPage = null;
		if (change.follows !== null) {
			const [row] = await tx.select({ id: page.id }).from(page).where(eq(page.path, change.follows));
			if (!row) throw new IanuaError('page-unknown', { path: change.follows });
			followsPage = row.id;
		}
	}
	await tx
		.update(door)
		.set({
			position: change.position,
			allMembers: change.allMembers,
			listed: change.listed,
			fromBound: change.from,
			untilBound: change.until,
			...(change.from !== undefined || change.until !== undefined ? instantsOf(from, until, (await site()).zone) : {}),
			allowSave: change.allow?.save,
			allowPrint: change.allow?.print,
			turnedAway: change.turnedAway,
			stamped: change.stamped,
			announced: change.announced,
			followsPage,
			changedAt: new Date(),
			changedBy: entry.actor
		})
		.where(eq(door.id, doorId));
	if (change.groups) {
		const ids = await groupIds(tx, change.groups);
		await tx.delete(doorGroup).where(eq(doorGroup.doorId, doorId));
		if (ids.size) await tx.insert(doorGroup).values([...ids.values()].map((groupId) => ({ doorId, groupId })));
	}
	if (change.people) {
		const ids = await personIds(tx, change.people);
		await tx.delete(doorPerson).where(eq(doorPerson.doorId, doorId));
		if (ids.size) await tx.insert(doorPerson).values([...ids.values()].map((personId) => ({ doorId, personId })));
	}
	const after = theRow(await tx.execute<{ door: DoorFields }>(raw`select door_json(${doorId}) as door`));
	await writeAudit(tx, {
		actor: entry.actor,
		action: 'door-set',
		kind: entry.kind,
		thing: entry.thing,
		before: before.door,
		after: { ...after.door, follows: change.follows }
	});
	return was;
}

/** A door as a change that makes another one like it; its hours are its own. */
export async function doorLike(tx: Queryable, doorId: string): Promise<DoorChange> {
	const { from: _from, until: _until, ...all } = DoorShape.properties;
	return doorBefore(tx, doorId, Object.fromEntries(Object.keys(all).map((name) => [name, undefined])));
}

/** What of a door a change is about to replace, in the words of a change. */
async function doorBefore(tx: Queryable, doorId: string, change: DoorChange): Promise<DoorChange> {
	const row = theRow(
		await tx.execute<{ door: DoorChange }>(raw`
		select door_json(d.id) || jsonb_build_object('follows', (select path from page where id = d.follows_page),
			'groups', coalesce((select jsonb_agg(g.slug) from door_group x join member_group g on g.id = x.group_id where x.door_id = d.id), '[]'),
			'people', coalesce((select jsonb_agg(p.email) from door_person x join person p on p.id = x.person_id where x.door_id = d.id), '[]')) as door
		from door d where d.id = ${doorId}`)
	);
	return Object.fromEntries(Object.entries(row.door).filter(([name]) => name in change));
}
