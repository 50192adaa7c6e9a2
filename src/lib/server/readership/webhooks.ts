// Programs elsewhere that are told what happens: set up with a secret that is shown once, exchanged for another, tried, withdrawn. What they
// are sent is in deliveries.ts.
import { randomBytes } from 'node:crypto';
import { Type, type Static } from '@sinclair/typebox';
import { sql as raw } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import type { Grant } from '#core/people/scope';
import { webhookEvents } from '#core/readership/webhook';
import { tellOfWork } from '../db/changes';
import { db, sql, type Queryable } from '../db/client';
import { newId } from '../id';
import { refusePrivate, webAddress } from '../intake/fetch';
import { writeAudit } from '../site/audit';
import { oneOf } from '#core/schema';
import { sendNow } from './deliveries';

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
			count(*) filter (where d.delivered_at is null and d.next_at is not null)::int as waiting, count(*) filter (where d.id is not null and d.delivered_at is null and d.next_at is null and d.event_id not like 'test %')::int as failed,
			(select answer from webhook_delivery t where t.webhook_id = w.id and t.delivered_at is null and t.tries > 0 order by t.at desc limit 1) as trouble
		from webhook w left join webhook_delivery d on d.webhook_id = w.id group by w.id order by w.created_at desc`;
	return rows.map(({ created_at, withdrawn_at, ...row }) => ({
		...row,
		createdAt: created_at.toISOString(),
		withdrawnAt: withdrawn_at?.toISOString() ?? null
	}));
}

const newSecret = () => `whsec_${randomBytes(32).toString('base64')}`;

/** Hours for which messages are signed with the secret before as well, after there is another. */
const bothHours = 24;

/** Makes a webhook. The secret is given this once: `whsec_` and the key in base64. One that a program makes (`token`) is withdrawn with its token. Throws `web-address`, `web-private`. */
export async function addWebhook(given: Static<typeof WebhookGiven>, actor: string, token?: Grant): Promise<{ id: string; secret: string }> {
	const address = webAddress(given.url);
	await refusePrivate(address);
	const { href: url } = address;
	const id = newId();
	const secret = newSecret();
	await sql()`insert into webhook (id, url, secret, events, created_by, token_id)
		values (${id}, ${url}, ${secret}, ${given.events as string[]}, ${actor}, ${token?.id ?? null})`;
	await db().transaction((tx) => writeAudit(tx, { actor, action: 'added', kind: 'site', thing: id, after: { webhook: url, events: given.events } }));
	await tellOfWork(sql(), 'webhooks');
	return { id, secret };
}

/** Gives a webhook another secret, this once. For a day messages are signed with both, so that its program can be given the new one. Throws `not-found`. */
export async function newSecretFor(id: string, actor: string): Promise<{ secret: string; both: string }> {
	const secret = newSecret();
	const [row] = await sql()<{ url: string; earlier_until: Date }[]>`
		update webhook set earlier_secret = secret, earlier_until = now() + make_interval(hours => ${bothHours}), secret = ${secret}
		where id = ${id} and withdrawn_at is null returning url, earlier_until`;
	if (!row) throw new IanuaError('not-found');
	await db().transaction((tx) => writeAudit(tx, { actor, action: 'changed', kind: 'site', thing: id, after: { webhook: row.url, secret: 'another' } }));
	return { secret, both: row.earlier_until.toISOString() };
}

/** Sends a message of the type `test` at once, and gives what became of it. Throws `not-found`. */
export async function tryWebhook(id: string): Promise<{ arrived: boolean; answer: string }> {
	const delivery = newId();
	// it is not in the queue, which others take from
	const [row] = await sql()`
		insert into webhook_delivery (id, webhook_id, event_id, body, next_at)
		select ${delivery}, w.id, ${`test ${delivery}`}, jsonb_build_object('type', 'test', 'timestamp', to_char(now() at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'), 'data', '{}'::jsonb), null
		from webhook w where w.id = ${id} and w.withdrawn_at is null returning 1`;
	if (!row) throw new IanuaError('not-found');
	return sendNow(delivery);
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

/** Tries all that failed once more, now. */
export async function tryAgain(id: string): Promise<void> {
	const [row] = await sql()`update webhook set ended = null where id = ${id} and withdrawn_at is null returning 1`;
	if (!row) throw new IanuaError('not-found');
	await sql()`update webhook_delivery set next_at = now(), tries = 0 where webhook_id = ${id} and delivered_at is null and event_id not like 'test %'`;
	await tellOfWork(sql(), 'webhooks');
}
