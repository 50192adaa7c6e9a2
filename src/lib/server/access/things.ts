// From rows to the things that core/access decides on, and from a change of a door to rows.
import { eq, sql as raw } from 'drizzle-orm';
import { isDay, isInstant, spanOf, within } from '#core/access/hours';
import type { Door, DoorChange, Position, Thing, TurnedAwayWords } from '#core/access/door';
import type { Reach } from '#core/access/reach';
import { IanuaError } from '#core/errors';
import type { Queryable } from '../db/client';
import { door, doorGroup, doorPerson, page } from '../db/schema';
import { newId } from '../id';
import { groupIds, personIds } from '../people/service';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { instantsOf } from './hours';

/** What the SQL function door_json gives. */
export interface DoorJson {
	readonly position: Position;
	readonly allMembers: boolean;
	readonly listed: boolean;
	readonly from: string | null;
	readonly until: string | null;
	readonly allow: { readonly save: boolean; readonly print: boolean };
	readonly groups: readonly string[];
	readonly people: readonly string[];
	readonly turnedAway: TurnedAwayWords | null;
	readonly stamped: boolean;
}

/** A row of any query that reads a thing: its door, and where it follows a page, that page's, as `thing_in_force` has them. */
export interface ThingRow {
	readonly set_aside_at: Date | null;
	readonly door: DoorJson;
	readonly follows_door?: DoorJson | null;
	readonly follows_set_aside?: boolean;
	readonly follows_unpublished?: boolean;
}

function doorOf(json: DoorJson, zone: string): Door {
	return { ...json, hours: spanOf(json.from, json.until, zone) };
}

/** The thing a row speaks of. */
export function thingOf(row: ThingRow, zone: string): Thing {
	return {
		setAside: row.set_aside_at !== null,
		door: doorOf(row.door, zone),
		follows: row.follows_door
			? { setAside: row.follows_set_aside === true, unpublished: row.follows_unpublished === true, door: doorOf(row.follows_door, zone) }
			: null
	};
}

/** A door as screens and the API show it: names beside ids, people of today. */
export interface DoorView {
	readonly position: Position;
	readonly allMembers: boolean;
	readonly groups: readonly { readonly slug: string; readonly name: string }[];
	readonly people: readonly { readonly email: string; readonly name: string }[];
	readonly from: string | null;
	readonly until: string | null;
	readonly allow: { readonly save: boolean; readonly print: boolean };
	readonly listed: boolean;
	readonly follows: { readonly path: string; readonly title: string } | null;
	readonly turnedAway: TurnedAwayWords | null;
	readonly stamped: boolean;
	/** People of today whom the door in force admits by groups and names. */
	readonly count: number;
	readonly changedAt: string;
	readonly changedBy: string | null;
}

/** What the SQL below gives for a door in words. `door_in_force` is the followed page's door where there is one. */
export interface DoorViewJson extends Omit<DoorView, 'groups' | 'people'> {
	readonly groups: DoorView['groups'];
	readonly people: DoorView['people'];
	readonly force: {
		readonly position: Position;
		readonly allMembers: boolean;
		readonly listed: boolean;
		readonly from: string | null;
		readonly until: string | null;
		readonly groups: readonly string[];
		readonly people: readonly string[];
	};
}

/** The reach of a door view: what the sentence is made from. */
export function reachOf(view: DoorViewJson, zone: string, setAside: boolean): Reach {
	const { force } = view;
	return {
		position: force.position,
		allMembers: force.allMembers,
		groups: force.groups,
		people: force.people,
		count: view.count,
		hours: spanOf(force.from, force.until, zone),
		allow: view.allow,
		listed: force.listed,
		follows: view.follows?.title ?? null,
		setAside
	};
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
	of: { actor: string | null; kind: 'document' | 'page'; thing: string }
): Promise<DoorChange> {
	const was = await doorBefore(tx, doorId, change);
	const [before] = (await tx.execute(raw`select door_json(${doorId}) as door`)) as unknown as [{ door: DoorJson }];
	for (const bound of [change.from, change.until]) {
		if (bound && !isDay(bound) && !isInstant(bound)) throw new IanuaError('not-valid', { detail: `“${bound}” is neither a day nor an instant` });
	}
	const [from, until] = [change.from === undefined ? before.door.from : change.from, change.until === undefined ? before.door.until : change.until];
	const hours = spanOf(from, until, 'UTC');
	if (hours.from !== null && hours.until !== null && hours.from >= hours.until)
		throw new IanuaError('not-valid', { detail: 'the hours end before they begin' });

	let followsPage: string | null | undefined;
	if (change.follows !== undefined) {
		if (of.kind === 'page' && change.follows !== null) throw new IanuaError('not-valid', { detail: 'a page cannot follow another page' });
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
			followsPage,
			changedAt: new Date(),
			changedBy: of.actor
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
	const [after] = (await tx.execute(raw`select door_json(${doorId}) as door`)) as unknown as [{ door: DoorJson }];
	await writeAudit(tx, {
		actor: of.actor,
		action: 'door-set',
		kind: of.kind,
		thing: of.thing,
		before: before.door,
		after: { ...after.door, follows: change.follows }
	});
	return was;
}

/** What of a door a change is about to replace, in the words of a change. */
async function doorBefore(tx: Queryable, doorId: string, change: DoorChange): Promise<DoorChange> {
	const [row] = (await tx.execute(raw`
		select jsonb_build_object('position', d.position, 'allMembers', d.all_members, 'listed', d.listed, 'from', d.from_bound, 'until', d.until_bound,
			'allow', jsonb_build_object('save', d.allow_save, 'print', d.allow_print), 'turnedAway', d.turned_away, 'stamped', d.stamped, 'follows', (select path from page where id = d.follows_page),
			'groups', coalesce((select jsonb_agg(g.slug) from door_group x join member_group g on g.id = x.group_id where x.door_id = d.id), '[]'),
			'people', coalesce((select jsonb_agg(p.email) from door_person x join person p on p.id = x.person_id where x.door_id = d.id), '[]')) as door
		from door d where d.id = ${doorId}`)) as unknown as [{ door: Record<string, unknown> }];
	return Object.fromEntries(Object.entries(row.door).filter(([name]) => name in change)) as DoorChange;
}
