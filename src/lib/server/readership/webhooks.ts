// Programs elsewhere are told what happens: what the ledger and the check hold is gathered, signed, sent, and tried again where it fails.
import { createHmac, randomBytes } from 'node:crypto';
import { Type, type Static } from '@sinclair/typebox';
import { sql as raw } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import type { Grant } from '#core/people/scope';
import { signedContent, waitAfter, webhookEvents } from '#core/readership/webhook';
import { tellOfWork, whenTold } from '../db/changes';
import { db, sql, type Queryable } from '../db/client';
import { theRow } from '../db/rows';
import { newId } from '../id';
import { postTo, webAddress } from '../intake/fetch';
import { log } from '../log';
import { newTrace } from '../trace';
import { writeAudit } from '../site/audit';
import { oneOf } from '#core/schema';

export const WebhookGiven = Type.Object(
	{
		url: Type.String({ maxLength: 2000 }),
		events: Type.Array(oneOf(webhookEvents), { minItems: 1, uniqueItems: true })
	},
	{ additionalProperties: false }
);

export interface WebhookView {
	readonly id: string;
	readonly url: string;
	readonly events: readonly string[];
	readonly createdAt: string;
	readonly withdrawnAt: string | null;
	/** Why it is sent nothing any more, where its program said so. */
	readonly ended: string | null;
	readonly delivered: number;
	readonly waiting: number;
	readonly failed: number;
	/** What the last try that failed got for an answer. */
	readonly trouble: string | null;
}

/** All webhooks with how their last call went, secrets left out. */
export async function webhooks(): Promise<WebhookView[]> {
	const rows = await sql()<(Omit<WebhookView, 'createdAt' | 'withdrawnAt'> & { created_at: Date; withdrawn_at: Date | null })[]>`
		select w.id, w.url, w.events, w.created_at, w.withdrawn_at, w.ended, count(d.delivered_at)::int as delivered,
			count(*) filter (where d.delivered_at is null and d.next_at is not null)::int as waiting, count(*) filter (where d.id is not null and d.delivered_at is null and d.next_at is null)::int as failed,
			(select answer from webhook_delivery t where t.webhook_id = w.id and t.delivered_at is null and t.tries > 0 order by t.at desc limit 1) as trouble
		from webhook w left join webhook_delivery d on d.webhook_id = w.id group by w.id order by w.created_at desc`;
	return rows.map(({ created_at, withdrawn_at, ...row }) => ({
		...row,
		createdAt: created_at.toISOString(),
		withdrawnAt: withdrawn_at?.toISOString() ?? null
	}));
}

/** Makes a webhook. The secret is given this once: `whsec_` and the key in base64. One that a program makes (`token`) is withdrawn with its token. */
export async function addWebhook(given: Static<typeof WebhookGiven>, actor: string, token?: Grant): Promise<{ id: string; secret: string }> {
	const url = webAddress(given.url).href;
	const id = newId();
	const secret = `whsec_${randomBytes(32).toString('base64')}`;
	await sql()`insert into webhook (id, url, secret, events, created_by, token_id)
		values (${id}, ${url}, ${secret}, ${given.events as string[]}, ${actor}, ${token?.id ?? null})`;
	await db().transaction((tx) => writeAudit(tx, { actor, action: 'added', kind: 'site', thing: id, after: { webhook: url, events: given.events } }));
	await tellOfWork(sql(), 'webhooks');
	return { id, secret };
}

/** Ends a webhook. Throws `not-found`. */
export async function withdrawWebhook(id: string, actor: string): Promise<void> {
	const [row] = await sql()<{ url: string }[]>`update webhook set withdrawn_at = now() where id = ${id} and withdrawn_at is null returning url`;
	if (!row) throw new IanuaError('not-found');
	await sql()`update webhook_delivery set next_at = null where webhook_id = ${id} and delivered_at is null`;
	await db().transaction((tx) => writeAudit(tx, { actor, action: 'withdrawn', kind: 'site', thing: id, before: { webhook: row.url } }));
}

/** Withdraws the webhooks that a program made by its token. */
export async function withdrawWebhooksOf(tx: Queryable, tokenId: string, actor: string): Promise<void> {
	const rows = await tx.execute<{ id: string; url: string }>(raw`
		with gone as (update webhook set withdrawn_at = now() where token_id = ${tokenId} and withdrawn_at is null returning id, url),
			still as (update webhook_delivery d set next_at = null from gone where d.webhook_id = gone.id and d.delivered_at is null)
		select id, url from gone`);
	for (const row of rows) await writeAudit(tx, { actor, action: 'withdrawn', kind: 'site', thing: row.id, before: { webhook: row.url } });
}

/** Days for which messages are kept that went out, or that are tried no more. */
const keptDays = 30;

/** Lets go of messages that are older, and are not to be tried again. */
export async function dropOldDeliveries(): Promise<void> {
	await sql()`delete from webhook_delivery where next_at is null and coalesce(delivered_at, at) < now() - make_interval(days => ${keptDays})`;
}

/** Tries all that failed once more, now. */
export async function tryAgain(id: string): Promise<void> {
	const [row] = await sql()`update webhook set ended = null where id = ${id} and withdrawn_at is null returning 1`;
	if (!row) throw new IanuaError('not-found');
	await sql()`update webhook_delivery set next_at = now(), tries = 0 where webhook_id = ${id} and delivered_at is null`;
	await tellOfWork(sql(), 'webhooks');
}

/** What happened since the last time, for each webhook that wants it; gives how many there are. Entries are committed a little after their time; none is taken twice. */
async function gather(): Promise<number> {
	const s = sql();
	const { any } = theRow(await s<{ any: boolean }[]>`select exists (select from webhook where withdrawn_at is null and ended is null) as any`);
	if (!any) return 0;
	const body = s`jsonb_build_object('type', l.kind, 'timestamp', to_char(l.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'), 'data', jsonb_build_object(
		'document', d.slug, 'title', d.title, 'who', l.who, 'name', coalesce(p.name, k.label), 'email', p.email, 'reason', l.reason, 'source', l.source_kind, 'page', g.path, 'site', l.outside))`;
	return s.begin(async (tx) => {
		const active = await tx<{ id: string; gathered_until: Date; events: string[]; now: Date }[]>`
			select id, gathered_until, events, now() from webhook where withdrawn_at is null and ended is null for update skip locked`;
		for (const hook of active) {
			const since = new Date(hook.gathered_until.getTime() - 60_000);
			await tx`
				insert into webhook_delivery (id, webhook_id, event_id, body)
				select gen_random_uuid(), ${hook.id}, l.id::text, ${body} from ledger l join document d on d.id = l.document_id left join person p on p.id = l.person_id
					left join door_key k on k.id = l.key_id left join page g on g.id = l.page_id
				where l.at > ${since} and l.at >= (select created_at from webhook where id = ${hook.id}) and l.kind = any(${hook.events}) and not l.staff and not l.robot and not l.preload
				on conflict (webhook_id, event_id) do nothing`;
			await tx`update webhook set gathered_until = ${hook.now} where id = ${hook.id}`;
		}
		// held by another server they are there too
		return Math.max(1, active.length);
	});
}

/** A document's condition is another: told to the webhooks that want to know. */
export async function tellCondition(edition: string): Promise<void> {
	await sql()`
		insert into webhook_delivery (id, webhook_id, event_id, body)
		select gen_random_uuid(), w.id, 'condition ' || e.id || ' ' || now(), jsonb_build_object('type', 'condition-changed', 'timestamp', to_char(now() at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'),
			'data', jsonb_build_object('document', d.slug, 'title', d.title, 'edition', e.number, 'condition', e.condition, 'findings', e.findings))
		from webhook w, edition e join document d on d.id = e.document_id where w.withdrawn_at is null and w.ended is null and 'condition-changed' = any(w.events) and e.id = ${edition}`;
}

/** Sends what is due, a few at a time. A delivery that a server took and did not bring to an end is due again after two minutes. */
async function deliver(): Promise<void> {
	const s = sql();
	const due = await s<{ id: string; event_id: string; webhook_id: string; body: unknown; tries: number; url: string; secret: string }[]>`
		with taken as (
			select d.id from webhook_delivery d join webhook w on w.id = d.webhook_id where d.delivered_at is null and d.next_at <= now() and w.withdrawn_at is null and w.ended is null
			order by d.next_at limit 20 for update of d skip locked)
		update webhook_delivery d set next_at = now() + interval '2 minutes' from taken t, webhook w where d.id = t.id and w.id = d.webhook_id
		returning d.id, d.event_id, d.webhook_id, d.body, d.tries, w.url, w.secret`;
	await Promise.all(
		due.map(async (one) => {
			const body = JSON.stringify(one.body);
			const seconds = Math.floor(Date.now() / 1000);
			const signature = createHmac('sha256', Buffer.from(one.secret.slice('whsec_'.length), 'base64'))
				.update(signedContent(one.id, seconds, body))
				.digest('base64');
			let answer: string;
			let status = 0;
			try {
				status = await postTo(one.url, body, {
					traceparent: newTrace(one.id),
					'webhook-id': one.id,
					'webhook-timestamp': String(seconds),
					'webhook-signature': `v1,${signature}`
				});
				answer = `it answered ${status}`;
			} catch (error) {
				answer = error instanceof Error ? error.message : 'it could not be reached';
			}
			log().info({ webhook: one.webhook_id, delivery: one.id, event: one.event_id, tries: one.tries + 1, answer }, 'message to another program');
			if (status >= 200 && status < 300) {
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
