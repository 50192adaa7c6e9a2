// A member's own record: all that is kept of them, to take away, and to have erased.
import { and, eq } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { db, sql } from '../db/client';
import { account } from '../db/schema';
import { writeAudit } from '../site/audit';
import { passwordFits } from './auth';
import { forgetPerson } from './members';

/** All that is kept of a person, as JSON: account, memberships, sessions, passkeys, knocks, stamped copies, and their entries in the ledger. */
export async function ownRecord(personId: string): Promise<Record<string, unknown>> {
	const s = sql();
	const [[person], memberships, sessions, knocks, stamps, ledger, doors, wishes, told, receipts, passkeys] = await Promise.all([
		s`select name, email, role, suspended, created_at, second_factor from person where id = ${personId}`,
		s`select g.name as "group", m.from_day::text as "from", m.until_day::text as until from membership m join member_group g on g.id = m.group_id where m.person_id = ${personId} order by g.name`,
		s`select created_at, updated_at, expires_at, ip_address as address, user_agent as agent from session where person_id = ${personId} order by created_at`,
		s`select k.at, d.title as document, k.email, k.words, k.answer, k.answered_at from knock k join document d on d.id = k.document_id where k.person_id = ${personId} order by k.at`,
		s`select t.number, t.name, t.day::text as day, d.title as document from stamp t join document d on d.id = t.document_id where t.holder = ${`p:${personId}`} order by t.at`,
		s`select l.at, l.kind, l.reason, d.title as document, e.number as edition, l.source_kind as source, l.outside, l.stamp from ledger l join document d on d.id = l.document_id
			join edition e on e.id = l.edition_id where l.person_id = ${personId} order by l.at`,
		s`select coalesce(d.title, g.title) as "of" from door_person x left join document d on d.door_id = x.door_id left join page g on g.door_id = x.door_id where x.person_id = ${personId}`,
		s`select d.title as document, w.folder, w.every, w.made_at from news_wish w left join document d on d.id = w.document_id where w.person_id = ${personId} order by w.made_at`,
		s`select d.title as document, e.number as edition, t.at from news_told t join edition e on e.id = t.edition_id join document d on d.id = e.document_id where t.person_id = ${personId} order by t.at`,
		s`select d.title as document, e.number as edition, r.at from receipt r join edition e on e.id = r.edition_id join document d on d.id = r.document_id where r.person_id = ${personId} order by r.at`,
		s`select name, created_at from passkey where person_id = ${personId} order by created_at`
	]);
	return {
		person,
		memberships,
		admittedByName: doors,
		sessions,
		passkeys,
		knocks,
		stampedCopies: stamps,
		newsAskedFor: wishes,
		newsTold: told,
		receipts,
		ledger
	};
}

/** Erases a member at their own wish, once they have given their password. Their entries in the ledger lose their name. */
export async function eraseSelf(personId: string, password: string): Promise<void> {
	const [own] = await db()
		.select({ password: account.password })
		.from(account)
		.where(and(eq(account.userId, personId), eq(account.providerId, 'credential')));
	if (own?.password && !(await passwordFits(own.password, password))) throw new IanuaError('own-password-wrong');
	await db().transaction(async (tx) => {
		// who it was is what is forgotten: the trail keeps that somebody was erased, not who
		await writeAudit(tx, { actor: null, action: 'erased', kind: 'person', thing: personId });
		await forgetPerson(tx, personId);
	});
}
