// Messages to programs elsewhere, one by one: what was sent, what became of it, and sent once more.
import { Type, type Static } from '@sinclair/typebox';
import { IanuaError } from '#core/errors';
import { nullable, oneOf } from '#core/schema';
import { sql } from '../db/client';
import type { After } from '../http/cursor';
import { sendNow } from './deliveries';

export const messageStates = ['arrived', 'waiting', 'given-up'] as const;
export type MessageState = (typeof messageStates)[number];

export const MessageView = Type.Object({
	id: Type.String({ format: 'uuid', description: 'as `webhook-id` says it' }),
	webhook: Type.String({ format: 'uuid' }),
	at: Type.String({ format: 'date-time', description: 'when what it tells happened' }),
	type: Type.String({ description: 'of what it tells; “test” for one that was sent to try the program' }),
	state: oneOf(messageStates),
	tries: Type.Integer({ description: 'how often it was sent' }),
	nextAt: nullable(Type.String({ format: 'date-time', description: 'when it is tried next' })),
	deliveredAt: nullable(Type.String({ format: 'date-time' })),
	answer: nullable(Type.String({ description: 'what the program answered last, in words' })),
	body: Type.Unknown({ description: 'what was sent, as signed' })
});
export type MessageView = Static<typeof MessageView>;

export interface MessagesAsked {
	/** Only those to one program. */
	readonly webhook?: string;
	readonly state?: MessageState;
	readonly after?: After;
	readonly limit?: number;
}

/** Messages, the newest first; `next` is the row behind which they go on. Throws `not-found` where there is no such program. */
export async function messages({ webhook, state, after, limit = 50 }: MessagesAsked = {}): Promise<{ items: MessageView[]; next: After | null }> {
	const s = sql();
	if (webhook !== undefined && !(await s`select 1 from webhook where id = ${webhook}`).length) throw new IanuaError('not-found');
	const stateOf = s`case when d.delivered_at is not null then 'arrived' when d.next_at is not null then 'waiting' else 'given-up' end`;
	const rows = await s<
		(Pick<MessageView, 'id' | 'webhook' | 'state' | 'tries' | 'answer'> & {
			at: Date;
			precisely: string;
			next_at: Date | null;
			delivered_at: Date | null;
			body: { type: string };
		})[]
	>`
		select d.id, d.webhook_id as webhook, d.at, d.at::text as precisely, d.body, ${stateOf} as state, d.tries, case when d.delivered_at is null then d.next_at end as next_at, d.delivered_at, d.answer
		from webhook_delivery d where true ${webhook === undefined ? s`` : s`and d.webhook_id = ${webhook}`} ${state === undefined ? s`` : s`and ${stateOf} = ${state}`}
			${after === undefined ? s`` : s`and (d.at, d.id) < (${after.value}::timestamptz, ${after.id}::uuid)`}
		order by d.at desc, d.id desc limit ${limit + 1}`;
	const shown = rows.slice(0, limit);
	const last = shown.at(-1);
	return {
		items: shown.map(({ at, precisely: _, next_at, delivered_at, body, ...row }) => ({
			...row,
			at: at.toISOString(),
			type: body.type,
			nextAt: next_at?.toISOString() ?? null,
			deliveredAt: delivered_at?.toISOString() ?? null,
			body
		})),
		next: last && rows.length > limit ? { value: last.precisely, id: last.id } : null
	};
}

/** Sends one message once more, now, whatever became of it before: its id is the same, by which its program knows it. Throws `not-found`. */
export async function sendAgain(webhook: string, message: string): Promise<{ arrived: boolean; answer: string }> {
	const [row] = await sql()`
		select 1 from webhook_delivery d join webhook w on w.id = d.webhook_id where d.id = ${message} and w.id = ${webhook} and w.withdrawn_at is null`;
	if (!row) throw new IanuaError('not-found');
	return sendNow(message);
}
