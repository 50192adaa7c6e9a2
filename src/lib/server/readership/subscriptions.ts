// What staff are told by mail: reports every week or month, and the first opening of a document.
import { Type, type Static } from '@sinclair/typebox';
import { IanuaError } from '#core/errors';
import { nullable, oneOf } from '#core/schema';
import { everies, mailedDays, nextMailing } from '#core/readership/mailing';
import { periodOf } from '#core/readership/period';
import { durationWords } from '#core/readership/words';
import { sql } from '../db/client';
import { documentView } from '../documents/view';
import { newId } from '../id';
import { sendMail } from '../mail/send';
import { settings } from '../settings';
import { site } from '../site/site';
import { reported } from './reported';
import { documentSummary } from './reports/document';
import { overview } from './reports/overview';
import { sumsForReport, sumUp } from './sums/keep';

export const SubscriptionGiven = Type.Object(
	{
		/** The document; the whole site where it is null. */
		document: nullable(Type.String({ maxLength: 200 })),
		/** How often its report is mailed; null for never. */
		every: Type.Optional(nullable(oneOf(everies))),
		/** Whether its first opening is told, by anybody or (a mail address) by somebody. */
		firstOpening: Type.Optional(Type.Union([Type.Boolean(), Type.String({ maxLength: 320 })]))
	},
	{ additionalProperties: false }
);

export interface Subscription {
	readonly every: 'week' | 'month' | null;
	/** Whose first opening is waited for: names; 'anybody' for anybody's. */
	readonly waiting: readonly string[];
}

async function idOf(slug: string | null): Promise<string | null> {
	if (slug === null) return null;
	const view = await documentView(slug);
	if (!view || view.goneAt) throw new IanuaError('not-found');
	return view.id;
}

/** What somebody on the staff has asked to be told about a document, or the whole site. */
export async function subscriptionOf(person: string, document: string | null): Promise<Subscription> {
	const s = sql();
	const [[mail], waiting] = await Promise.all([
		s<{ every: 'week' | 'month' }[]>`select every from report_mail where person_id = ${person} and document_id is not distinct from ${document}`,
		s<{ name: string | null }[]>`
			select p.name from first_opening f left join person p on p.id = f.by_person where f.person_id = ${person} and f.document_id = ${document} and f.told_at is null order by p.name nulls first`
	]);
	return { every: mail?.every ?? null, waiting: waiting.map((w) => w.name ?? 'anybody') };
}

/** Sets what somebody is told. */
export async function setSubscription(person: string, asked: Static<typeof SubscriptionGiven>): Promise<Subscription> {
	const document = await idOf(asked.document);
	const s = sql();
	const { zone } = await site();
	if (asked.every !== undefined) {
		await s`delete from report_mail where person_id = ${person} and document_id is not distinct from ${document}`;
		if (asked.every)
			await s`insert into report_mail (id, person_id, document_id, every, next_at) values (${newId()}, ${person}, ${document}, ${asked.every},
				${new Date(nextMailing(Date.now(), asked.every, zone))})`;
	}
	if (asked.firstOpening !== undefined) {
		if (document === null) throw new IanuaError('not-valid', { detail: 'a first opening is that of one document' });
		if (asked.firstOpening === false) await s`delete from first_opening where person_id = ${person} and document_id = ${document} and told_at is null`;
		else {
			let by: string | null = null;
			if (asked.firstOpening !== true) {
				const [row] = await s<{ id: string }[]>`select id from person where email = ${asked.firstOpening.trim().toLowerCase()} and role = 'member'`;
				if (!row) throw new IanuaError('not-valid', { detail: `nobody has the address “${asked.firstOpening}”` });
				by = row.id;
			}
			await s`insert into first_opening (id, person_id, document_id, by_person) values (${newId()}, ${person}, ${document}, ${by}) on conflict do nothing`;
		}
	}
	return subscriptionOf(person, document);
}

/** Mails what is due. Each is taken by one server, and counts as told when its mail has gone; one that did not go is tried an hour later. */
export async function sendDueReports(now: number): Promise<void> {
	await tellReports(now);
	await tellFirstOpenings();
}

async function tellReports(now: number): Promise<void> {
	// nobody is mailed figures of which some are missing
	if (!(await sumsForReport())) return;
	const { zone, name } = await site();
	const due = await sql()<{ id: string; every: 'week' | 'month'; slug: string | null; to: string; person: string }[]>`
		update report_mail r set next_at = ${new Date(now + 3_600_000)} from person p
		where r.next_at <= ${new Date(now)} and p.id = r.person_id and p.closed_at is null
		returning r.id, r.every, (select slug from document where id = r.document_id) as slug, p.email as to, p.name as person`;
	// nobody waits for a mail: what is new is in it, however long that takes
	if (due.length) await sumUp();
	for (const mail of due) {
		const { first, last } = mailedDays(now, mail.every, zone);
		const period = periodOf({ from: first }, last);
		const sent = await sendMail({
			to: mail.to,
			subject: `Readership, ${mail.every === 'week' ? 'the week' : 'the month'} to ${last}: ${name}`,
			text: await textOf(mail.slug, mail.person, period)
		});
		if (sent) await sql()`update report_mail set next_at = ${new Date(nextMailing(now, mail.every, zone))} where id = ${mail.id}`;
	}
}

async function textOf(slug: string | null, person: string, period: ReturnType<typeof periodOf>): Promise<string> {
	const { IANUA_ORIGIN } = settings();
	const asked = `from=${period.first}&until=${period.last}`;
	const say = (pieces: readonly { text: string }[]) =>
		pieces
			.map((p) => p.text)
			.join('')
			.trim();
	if (slug) {
		const view = await documentView(slug);
		if (!view) return '';
		const report = await documentSummary(await reported(view), period);
		return `${person},\n\n${view.title}\n\n${say(report.answer)}\n\n${IANUA_ORIGIN}/desk/readership/${slug}?${asked}\n`;
	}
	const report = await overview(period, { documents: 10, sources: 8 });
	const lines = report.documents.map(
		(d) => `${d.title}: ${d.readers} readers, ${d.openings} openings, ${d.saves} saved${d.seconds >= 1 ? `, read for ${durationWords(d.seconds)}` : ''}`
	);
	return `${person},\n\n${say(report.answer)}\n\n${lines.join('\n')}\n\n${IANUA_ORIGIN}/desk/readership?${asked}\n`;
}

async function tellFirstOpenings(): Promise<void> {
	const { name, zone } = await site();
	const due = await sql()<{ id: string; slug: string; title: string; to: string; person: string; who: string | null; at: Date }[]>`
		with due as (
			select f.id, d.slug, d.title, p.email as "to", p.name as person, o.who, o.at from first_opening f join document d on d.id = f.document_id join person p on p.id = f.person_id,
				lateral (
					select coalesce(w.name, k.label) as who, l.at from ledger l left join person w on w.id = l.person_id left join door_key k on k.id = l.key_id
					where l.document_id = f.document_id and l.kind in ('opened', 'saved') and l.at >= f.asked_at and not l.staff and not l.robot and not l.preload
						and (f.by_person is null or l.person_id = f.by_person) order by l.at limit 1) o
			where f.told_at is null and p.closed_at is null for update of f skip locked)
		update first_opening set told_at = now() from due where first_opening.id = due.id returning due.*`;
	for (const notice of due) {
		const when = new Intl.DateTimeFormat('en-GB', { timeZone: zone, dateStyle: 'long', timeStyle: 'short' }).format(notice.at);
		const sent = await sendMail({
			to: notice.to,
			subject: `${notice.title}: opened by ${notice.who ?? 'a visitor'}`,
			text: `${notice.person},\n\n“${notice.title}” was opened by ${notice.who ?? 'a visitor'} on ${when}, the first time since you asked.\n\n${settings().IANUA_ORIGIN}/desk/readership/${notice.slug}\n\n${name}\n`
		});
		if (!sent) await sql()`update first_opening set told_at = null where id = ${notice.id}`;
	}
}
