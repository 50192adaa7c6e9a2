// What happens is told to programs elsewhere: what the ledger, the audit trail and the check hold is gathered, signed, sent, and tried again
// where it fails.
import { createHmac } from 'node:crypto';
import type postgres from 'postgres';
import { signedContent, trailEvents, waitAfter } from '#core/readership/webhook';
import { whenTold } from '../db/changes';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { postTo } from '../intake/fetch';
import { log } from '../log';
import { newTrace } from '../trace';

/** Days for which messages are kept that went out, or that are tried no more. */
const keptDays = 30;

/** Lets go of messages that are older, and are not to be tried again. */
export async function dropOldDeliveries(): Promise<void> {
	await sql()`delete from webhook_delivery where next_at is null and coalesce(delivered_at, at) < now() - make_interval(days => ${keptDays})`;
}

/** What happened since the last time, for each webhook that wants it; gives how many there are. Entries are committed a little after their time; none is taken twice. */
async function gather(): Promise<number> {
	const s = sql();
	const { any } = theRow(await s<{ any: boolean }[]>`select exists (select from webhook where withdrawn_at is null and ended is null) as any`);
	if (!any) return 0;
	const at = (time: postgres.Fragment) => s`to_char(${time} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;
	// who, as in the API's entries
	const who = s`jsonb_strip_nulls(jsonb_build_object('kind', l.who, 'name', coalesce(p.name, k.label, nullif(wp.name, '')), 'email', p.email, 'website', ws.origin))`;
	const body = s`jsonb_build_object('type', l.kind, 'timestamp', ${at(s`l.at`)}, 'data', jsonb_build_object(
		'id', l.id, 'document', d.slug, 'title', d.title, 'edition', e.number, 'who', ${who}, 'reason', l.reason, 'source', l.source_kind, 'page', g.path, 'site', l.outside))`;
	const trail = s`jsonb_build_object('type', t.event, 'timestamp', ${at(s`a.at`)}, 'data', jsonb_strip_nulls(jsonb_build_object(
		'id', a.id, 'who', jsonb_strip_nulls(jsonb_build_object('kind', 'staff', 'name', p.name, 'email', p.email)),
		'document', coalesce(d.slug, a.before->>'slug'), 'title', coalesce(d.title, g.draft_title), 'page', g.path)
		|| case when t.event = 'door-changed' then jsonb_build_object('before', a.before, 'after', a.after)
			when t.event like 'key-%' then jsonb_build_object('key', jsonb_build_object('id', coalesce(a.after->>'id', a.after->>'key', a.before->>'key'), 'label', coalesce(a.after->>'label', a.before->>'label')))
			when a.kind = 'person' then jsonb_build_object('member', jsonb_build_object('id', a.thing, 'name', coalesce(m.name, a.after->>'name', a.before->>'name'), 'email', coalesce(m.email, a.after->>'email', a.before->>'email')), 'before', a.before, 'after', a.after)
			else '{}' end))`;
	const told = { events: trailEvents.map((e) => e.event), kinds: trailEvents.map((e) => e.kind), actions: trailEvents.map((e) => e.action) };
	return s.begin(async (tx) => {
		const active = await tx<{ id: string; gathered_until: Date; events: string[]; now: Date }[]>`
			select id, gathered_until, events, now() from webhook where withdrawn_at is null and ended is null for update skip locked`;
		for (const hook of active) {
			const since = new Date(hook.gathered_until.getTime() - 60_000);
			await tx`
				insert into webhook_delivery (id, webhook_id, event_id, body, at)
				select gen_random_uuid(), ${hook.id}, l.id::text, ${body}, l.at from ledger l join document d on d.id = l.document_id join edition e on e.id = l.edition_id left join person p on p.id = l.person_id
					left join door_key k on k.id = l.key_id left join page g on g.id = l.page_id
					left join website_person wp on l.reader like 'w:%' and wp.id::text = substr(l.reader, 3) left join website ws on ws.id = wp.website_id
				where l.at > ${since} and l.at >= (select created_at from webhook where id = ${hook.id}) and l.kind = any(${hook.events}) and not l.staff and not l.robot and not l.preload
				on conflict (webhook_id, event_id) do nothing`;
			// of people, members alone; what a long change wrote is committed long after its time
			await tx`
				insert into webhook_delivery (id, webhook_id, event_id, body, at)
				select gen_random_uuid(), ${hook.id}, a.id::text, ${trail}, a.at from audit a
					join unnest(${told.events}::text[], ${told.kinds}::text[], ${told.actions}::text[]) as t (event, kind, action) on t.kind = a.kind and t.action = a.action
					left join person p on p.id = a.actor left join document d on a.kind = 'document' and d.id = a.thing left join page g on a.kind = 'page' and g.id = a.thing
					left join person m on a.kind = 'person' and m.id = a.thing
				where a.at > ${hook.gathered_until}::timestamptz - interval '15 minutes' and a.at >= (select created_at from webhook where id = ${hook.id}) and t.event = any(${hook.events})
					and (a.kind <> 'person' or coalesce(m.role, a.after->>'role', 'member') = 'member')
				on conflict (webhook_id, event_id) do nothing`;
			await tx`update webhook set gathered_until = ${hook.now} where id = ${hook.id}`;
		}
		// held by another server they are there too
		return Math.max(1, active.length);
	});
}

/** What is told of an edition: its condition is another, or it came into force when its check was done. */
export async function tellEdition(edition: string, event: 'condition-changed' | 'edition-in-force'): Promise<void> {
	await sql()`
		insert into webhook_delivery (id, webhook_id, event_id, body)
		select gen_random_uuid(), w.id, ${event}::text || ' ' || e.id || ' ' || now(), jsonb_build_object('type', ${event}::text, 'timestamp', to_char(now() at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'),
			'data', jsonb_build_object('document', d.slug, 'title', d.title, 'edition', e.number, 'condition', e.condition, 'findings', e.findings))
		from webhook w, edition e join document d on d.id = e.document_id where w.withdrawn_at is null and w.ended is null and ${event} = any(w.events) and e.id = ${edition}`;
}

/** The file at a document's web address is another one, gone, or there again. */
export async function tellSource(document: string): Promise<void> {
	await sql()`
		insert into webhook_delivery (id, webhook_id, event_id, body)
		select gen_random_uuid(), w.id, 'source-changed ' || d.id || ' ' || now(), jsonb_build_object('type', 'source-changed', 'timestamp', to_char(now() at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'),
			'data', jsonb_build_object('document', d.slug, 'title', d.title, 'url', s.url, 'state', s.state, 'note', s.note))
		from webhook w, source s join document d on d.id = s.document_id where w.withdrawn_at is null and w.ended is null and 'source-changed' = any(w.events) and d.id = ${document}`;
}

interface Due {
	id: string;
	event_id: string;
	webhook_id: string;
	body: unknown;
	tries: number;
	url: string;
	secret: string;
	/** The one before, for as long as messages are signed with both. */
	earlier: string | null;
}

/** Signs and sends a message; gives the status of the answer (0 where there was none) and the same in words. */
async function post(one: Due): Promise<{ status: number; answer: string }> {
	const body = JSON.stringify(one.body);
	const seconds = Math.floor(Date.now() / 1000);
	const signatures = [one.secret, ...(one.earlier ? [one.earlier] : [])].map(
		(secret) =>
			`v1,${createHmac('sha256', Buffer.from(secret.slice('whsec_'.length), 'base64'))
				.update(signedContent(one.id, seconds, body))
				.digest('base64')}`
	);
	let sent: { status: number; answer: string };
	try {
		const status = await postTo(one.url, body, {
			traceparent: newTrace(one.id),
			'webhook-id': one.id,
			'webhook-timestamp': String(seconds),
			'webhook-signature': signatures.join(' ')
		});
		sent = { status, answer: `it answered ${status}` };
	} catch (error) {
		sent = { status: 0, answer: error instanceof Error ? error.message : 'it could not be reached' };
	}
	log().info({ webhook: one.webhook_id, delivery: one.id, event: one.event_id, tries: one.tries + 1, answer: sent.answer }, 'message to another program');
	return sent;
}

const hasArrived = (status: number) => status >= 200 && status < 300;

/** Sends one, once, beside the queue; gives what became of it. One that arrives so is tried no more. */
export async function sendNow(delivery: string): Promise<{ arrived: boolean; answer: string }> {
	const s = sql();
	const one = theRow(
		await s<Due[]>`
		select d.id, d.event_id, d.webhook_id, d.body, d.tries, w.url, w.secret, case when w.earlier_until > now() then w.earlier_secret end as earlier
		from webhook_delivery d join webhook w on w.id = d.webhook_id where d.id = ${delivery}`
	);
	const { status, answer } = await post(one);
	const arrived = hasArrived(status);
	await s`
		update webhook_delivery set delivered_at = ${arrived ? new Date() : null}::timestamptz, next_at = case when ${arrived} then null else next_at end, tries = tries + 1, answer = ${answer}
		where id = ${one.id}`;
	return { arrived, answer };
}

/** Sends what is due, a few at a time. A delivery that a server took and did not bring to an end is due again after two minutes. */
async function deliver(): Promise<void> {
	const s = sql();
	const due = await s<Due[]>`
		with taken as (
			select d.id from webhook_delivery d join webhook w on w.id = d.webhook_id where d.delivered_at is null and d.next_at <= now() and w.withdrawn_at is null and w.ended is null
			order by d.next_at limit 20 for update of d skip locked)
		update webhook_delivery d set next_at = now() + interval '2 minutes' from taken t, webhook w where d.id = t.id and w.id = d.webhook_id
		returning d.id, d.event_id, d.webhook_id, d.body, d.tries, w.url, w.secret, case when w.earlier_until > now() then w.earlier_secret end as earlier`;
	await Promise.all(
		due.map(async (one) => {
			const { status, answer } = await post(one);
			if (hasArrived(status)) {
				await s`update webhook_delivery set delivered_at = now(), tries = tries + 1, answer = ${answer}, next_at = null where id = ${one.id}`;
				return;
			}
			// 410 Gone: its program wants nothing any more
			if (status === 410) await s`update webhook set ended = 'it answered 410: nothing more is wanted' where id = ${one.webhook_id}`;
			const wait = status === 410 ? null : waitAfter(one.tries + 1);
			await s`update webhook_delivery set tries = tries + 1, answer = ${answer}, next_at = ${wait === null ? null : new Date(Date.now() + wait * 1000)} where id = ${one.id}`;
		})
	);
}

/** Ms from one round to the next: while there are webhooks, and while there is none, or none is left. */
const [roundMs, idleMs] = [3_000, 20_000];

/** Gathers and sends, one round after the other, from now on. */
export function keepTelling(): void {
	let timer: ReturnType<typeof setTimeout> | undefined;
	const now = { busy: false, told: false };
	const again = async () => {
		Object.assign(now, { busy: true, told: false });
		let active = 0;
		try {
			active = await gather();
			if (active) await deliver();
		} catch (err) {
			log().warn({ err }, 'webhooks');
			active = 1;
		}
		now.busy = false;
		timer = setTimeout(() => void again(), active || now.told ? roundMs : idleMs).unref();
	};
	whenTold('webhooks', () => {
		now.told = true;
		if (now.busy) return;
		clearTimeout(timer);
		timer = setTimeout(() => void again(), roundMs).unref();
	});
	timer = setTimeout(() => void again(), roundMs).unref();
}
