// Staff accounts: invited by mail, changed in their role, closed with everything handed over.
import { and, eq, isNull, ne, sql as raw } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { db, sql, type Queryable } from '../db/client';
import { account, invitation, person, session } from '../db/schema';
import { newId } from '../id';
import { sendMail } from '../mail/send';
import { settings } from '../settings';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { hashPassword } from './auth';
import { insertPerson } from './directory';
import { hashOf, newSecret } from './secrets';
import type { Person } from './who';

export type StaffRole = 'owner' | 'editor';

export interface StaffMember {
	readonly id: string;
	readonly name: string;
	readonly email: string;
	readonly role: StaffRole;
	/** Documents and pages begun by them. */
	readonly begun: number;
}

export interface InvitationView {
	readonly id: string;
	readonly name: string;
	readonly email: string;
	readonly role: StaffRole;
	readonly expiresAt: string;
}

/** Days for which an invitation can be taken up. */
export const invitationDays = 7;

/** Who of the staff can be asked for something: names and addresses. */
export async function staffNames(): Promise<{ name: string; email: string }[]> {
	return sql()<{ name: string; email: string }[]>`select name, email from person where role <> 'member' and closed_at is null order by name`;
}

/** Staff, owners first, and open invitations. */
export async function listStaff(): Promise<{ staff: StaffMember[]; invited: InvitationView[] }> {
	const s = sql();
	const [staff, invited] = await Promise.all([
		s<StaffMember[]>`
			select p.id, p.name, p.email, p.role, (select count(*)::int from document where created_by = p.id) + (select count(*)::int from page where created_by = p.id) as begun
			from person p where p.role <> 'member' and p.closed_at is null order by p.role desc, p.name`,
		s<(Omit<InvitationView, 'expiresAt'> & { expires_at: Date })[]>`
			select id, name, email, role, expires_at from invitation where role <> 'member' and accepted_at is null and expires_at > now() order by created_at desc`
	]);
	return { staff: [...staff], invited: invited.map(({ expires_at, ...i }) => ({ ...i, expiresAt: expires_at.toISOString() })) };
}

/** An invitation that was made: whether it was mailed, and, where no mail is set up and an owner asks, the address to hand over. */
export interface Invited {
	readonly mailed: boolean;
	readonly address: string | null;
}

/** Invites somebody to the staff. */
export async function inviteStaff(given: { name: string; email: string; role: StaffRole }, actor: Person): Promise<Invited> {
	const email = given.email.trim().toLowerCase();
	const [there] = await db().select({ role: person.role }).from(person).where(eq(person.email, email));
	if (there && there.role !== 'member') throw new IanuaError('email-taken', { email });
	return mailInvitation({ ...given, email }, actor);
}

/**
 * Makes an invitation, in place of an earlier one to the same address, and mails it. Whoever has its address chooses the password, so it
 * is shown to nobody where there is mail, and to owners alone where there is none.
 */
export async function mailInvitation(
	given: { name: string; email: string; role: StaffRole | 'member' },
	{ id: actor, role: asking }: Pick<Person, 'id' | 'role'>
): Promise<Invited> {
	const { email, role } = given;
	const token = newSecret();
	const id = newId();
	const shown = !settings().IANUA_SMTP_URL && asking === 'owner';
	await db().transaction(async (tx) => {
		await tx.delete(invitation).where(and(eq(invitation.email, email), isNull(invitation.acceptedAt)));
		await tx.insert(invitation).values({
			id,
			email,
			name: given.name.trim(),
			role,
			hash: hashOf(token),
			createdBy: actor,
			shown,
			expiresAt: new Date(Date.now() + invitationDays * 86_400_000)
		});
		await writeAudit(tx, { actor, action: 'invited', kind: 'person', thing: id, after: { email, role } });
	});
	const address = `${settings().IANUA_ORIGIN}/invite/${token}`;
	const { name } = await site();
	const what =
		role === 'member' ? `to read what ${name} keeps for you` : `to look after the documents of ${name}, as ${role === 'owner' ? 'an owner' : 'an editor'}`;
	const mailed = await sendMail({
		to: email,
		subject: role === 'member' ? `Your sign-in to ${name}` : `Look after the documents of ${name}`,
		text: `${given.name.trim()},\n\nyou are invited ${what}.\nTake it up here within ${invitationDays} days:\n\n${address}\n\nIf this was not meant for you, do nothing.\n`
	});
	return { mailed, address: shown ? address : null };
}

/** An invitation that can still be taken up. Throws `invitation-over`. */
export async function invitationOf(token: string): Promise<Omit<InvitationView, 'role'> & { role: StaffRole | 'member'; known: boolean }> {
	const [row] = await db()
		.select()
		.from(invitation)
		.where(eq(invitation.hash, hashOf(token)));
	if (!row || row.acceptedAt || row.expiresAt.getTime() < Date.now()) throw new IanuaError('invitation-over');
	const [there] = await db().select({ id: person.id }).from(person).where(eq(person.email, row.email));
	return { id: row.id, name: row.name, email: row.email, role: row.role, expiresAt: row.expiresAt.toISOString(), known: there !== undefined };
}

/** Takes an invitation up: makes the account, or gives a member's account its new role and password; a member keeps theirs and chooses a password. */
export async function acceptInvitation(token: string, given: { name: string; password: string }): Promise<string> {
	const password = await hashPassword(given.password);
	return db().transaction(async (tx) => {
		const [row] = await tx
			.select()
			.from(invitation)
			.where(eq(invitation.hash, hashOf(token)))
			.for('update');
		if (!row || row.acceptedAt || row.expiresAt.getTime() < Date.now()) throw new IanuaError('invitation-over');
		await tx.update(invitation).set({ acceptedAt: new Date() }).where(eq(invitation.id, row.id));
		const [there] = await tx.select({ id: person.id }).from(person).where(eq(person.email, row.email));
		if (!there) await insertPerson(tx, { name: given.name, email: row.email, role: row.role, password, unconfirmed: row.shown }, null);
		else {
			// a member who chooses a password stays what they are
			if (row.role !== 'member') await tx.update(person).set({ role: row.role, suspended: false, closedAt: null }).where(eq(person.id, there.id));
			await tx.update(person).set({ emailVerified: !row.shown }).where(eq(person.id, there.id));
			await setPassword(tx, there.id, password);
			await tx.delete(session).where(eq(session.userId, there.id));
			await writeAudit(tx, {
				actor: there.id,
				action: 'changed',
				kind: 'person',
				thing: there.id,
				after: row.role === 'member' ? { password: true } : { role: row.role }
			});
		}
		return row.email;
	});
}

export async function setPassword(tx: Queryable, personId: string, password: string): Promise<void> {
	const now = new Date();
	const [had] = await tx
		.update(account)
		.set({ password, updatedAt: now })
		.where(and(eq(account.userId, personId), eq(account.providerId, 'credential')))
		.returning({ id: account.id });
	if (!had)
		await tx.insert(account).values({ id: newId(), accountId: personId, providerId: 'credential', userId: personId, password, createdAt: now, updatedAt: now });
}

/** Takes an invitation back; its address leads nowhere from then on. */
export async function withdrawInvitation(id: string): Promise<void> {
	if (/^[0-9a-f-]{36}$/.test(id))
		await db()
			.delete(invitation)
			.where(and(eq(invitation.id, id), isNull(invitation.acceptedAt)));
}

/** A site keeps at least one owner whose account is open. */
const ownersBeside = (tx: Parameters<Parameters<ReturnType<typeof db>['transaction']>[0]>[0], id: string) =>
	tx
		.select({ id: person.id })
		.from(person)
		.where(and(eq(person.role, 'owner'), isNull(person.closedAt), ne(person.id, id)))
		.for('update');

/** Gives a member of staff another role. Throws `last-owner` where none would be left, `not-found` for members. */
export async function setRole(id: string, role: StaffRole, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		const [row] = await tx.select().from(person).where(eq(person.id, id)).for('update');
		if (!row || row.role === 'member' || row.closedAt) throw new IanuaError('not-found');
		if (row.role === 'owner' && role !== 'owner' && !(await ownersBeside(tx, id)).length) throw new IanuaError('last-owner');
		await tx.update(person).set({ role }).where(eq(person.id, id));
		await writeAudit(tx, { actor, action: 'changed', kind: 'person', thing: id, before: { role: row.role }, after: { role } });
	});
}

/**
 * Closes a staff account: its sessions and tokens end at once, and all it has begun (documents, editions, pages, files on their way,
 * saved filters) is handed over. Nothing that readers use depends on it.
 */
export async function closeStaff(id: string, to: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		const [row] = await tx.select().from(person).where(eq(person.id, id)).for('update');
		const [heir] = await tx
			.select()
			.from(person)
			.where(and(eq(person.id, to), isNull(person.closedAt)));
		if (!row || row.role === 'member' || row.closedAt || !heir || heir.role === 'member' || heir.id === id) throw new IanuaError('not-found');
		if (row.role === 'owner' && !(await ownersBeside(tx, id)).length) throw new IanuaError('last-owner');
		await tx.execute(raw`update document set created_by = ${to} where created_by = ${id}`);
		await tx.execute(raw`update document set review_by = ${to} where review_by = ${id}`);
		await tx.execute(raw`update edition set created_by = ${to} where created_by = ${id}`);
		await tx.execute(raw`update page set created_by = ${to} where created_by = ${id}`);
		await tx.execute(raw`update intake set person_id = ${to} where person_id = ${id}`);
		await tx.execute(raw`update saved_filter f set person_id = ${to}, name = left(f.name || ' (' || ${row.name} || ')', 80) where person_id = ${id}`);
		await tx.execute(raw`update api_token set withdrawn_at = now() where person_id = ${id} and withdrawn_at is null`);
		await tx.execute(raw`delete from invitation where created_by = ${id} and accepted_at is null`);
		await tx.delete(session).where(eq(session.userId, id));
		await tx.update(person).set({ role: 'member', suspended: true, closedAt: new Date() }).where(eq(person.id, id));
		await writeAudit(tx, { actor, action: 'closed', kind: 'person', thing: id, before: { role: row.role, name: row.name }, after: { handedTo: heir.email } });
	});
}
