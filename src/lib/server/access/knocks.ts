// Knocks: somebody turned away asks to be let in; staff let them in, by a group or a key, or decline. Mail goes out either way.
import { and, eq, isNull } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import type { RefusedCode } from '#core/access/decide';
import { dayOf } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { isAddress } from '#core/people/addresses';
import type { Grant } from '#core/people/scope';
import { asLine } from '#core/text/line';
import { db, sql } from '../db/client';
import { theRow } from '../db/rows';
import { group, knock } from '../db/schema';
import { newId } from '../id';
import { sendMail } from '../mail/send';
import { countOften, placeOf } from '../people/attempts';
import { insertPerson } from '../people/directory';
import { insertMemberships } from '../people/memberships';
import { mailInvitation } from '../people/staff';
import type { Person } from '../people/who';
import type { TurnedAway } from '../reading/chain';
import { recordKnock } from '../reading/record';
import { settings } from '../settings';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { issueKeyIn } from './keys';

export const KnockGiven = Type.Object({
	email: Type.String({ maxLength: 320 }),
	words: Type.String({ minLength: 1, maxLength: 600, pattern: '\\S' })
});

/** Knocks without a sign-in that wait at one document under one address; more of them say nothing new. */
const mostWaiting = 3;

/** Takes a knock from somebody whom a document's door has just refused. One browser's address may knock ten times in a quarter of an hour. */
export async function takeKnock(refusal: TurnedAway, given: Static<typeof KnockGiven>): Promise<void> {
	const { found, asker, page } = refusal;
	if (!found || !page.knock) throw new IanuaError('not-found');
	const email = given.email.trim().toLowerCase();
	if (!isAddress(email)) throw new IanuaError('not-valid', { detail: `“${email}” is not a mail address` });
	await countOften(`knock ${placeOf(asker.address)}`);
	const s = sql();
	const personId = asker.caller.person?.id ?? null;
	// the same member's knock again while it waits is the first one with its newer words; an address that is only said is nobody's, so that
	// nothing that waits is rewritten by whoever says it
	const [row] = personId
		? await s<{ id: string }[]>`
			update knock set words = ${given.words.trim()}, at = now()
			where document_id = ${found.id} and email = ${email} and person_id = ${personId} and answered_at is null returning id`
		: [];
	const waiting = theRow(
		await s<{ n: number }[]>`
		select count(*)::int as n from knock where document_id = ${found.id} and email = ${email} and person_id is null and answered_at is null`
	);
	if (!row && (personId || waiting.n < mostWaiting))
		await db().insert(knock).values({ id: newId(), documentId: found.id, email, words: given.words.trim(), reason: refusal.reason, personId });
	await recordKnock(found, refusal.reason as RefusedCode, asker);
}

export interface KnockView {
	readonly id: string;
	readonly at: string;
	readonly email: string;
	readonly words: string;
	readonly reason: string;
	readonly document: { readonly slug: string; readonly title: string };
	/** The groups that the document's door admits: those that would help. */
	readonly groups: readonly { readonly slug: string; readonly name: string }[];
	/** Somebody here has that address. The one who knocked was signed in as them, or only says so. */
	readonly person: { readonly id: string; readonly name: string; readonly signedIn: boolean } | null;
	readonly answer: 'group' | 'key' | 'declined' | null;
	readonly answeredAt: string | null;
	readonly answeredBy: string | null;
}

/** Knocks: those that wait first, the oldest of them first; then those answered, newest first. */
export async function listKnocks(limit = 2000): Promise<KnockView[]> {
	const rows = await sql()<
		(Omit<KnockView, 'at' | 'answeredAt' | 'answeredBy' | 'document'> & {
			at: Date;
			answered_at: Date | null;
			answered_by: string | null;
			slug: string;
			title: string;
		})[]
	>`
		select k.id, k.at, k.email, k.words, k.reason, k.answer, k.answered_at, b.name as answered_by, d.slug, d.title,
			case when p.id is null then null else jsonb_build_object('id', p.id, 'name', p.name, 'signedIn', k.person_id is not null and k.person_id = p.id) end as person,
			coalesce((select jsonb_agg(jsonb_build_object('slug', g.slug, 'name', g.name) order by g.name) from door_group dg join member_group g on g.id = dg.group_id
				where dg.door_id = coalesce(fp.door_id, dr.id)), '[]') as groups
		from knock k join document d on d.id = k.document_id join door dr on dr.id = d.door_id left join page fp on fp.id = dr.follows_page
			left join person p on p.email = k.email and p.role = 'member' and p.closed_at is null left join person b on b.id = k.answered_by
		order by k.answered_at desc nulls first, k.at limit ${limit}`;
	return rows.map(({ at, answered_at, answered_by, slug, title, ...row }) => ({
		...row,
		at: at.toISOString(),
		answeredAt: answered_at?.toISOString() ?? null,
		answeredBy: answered_by,
		document: { slug, title }
	}));
}

/** How many knocks wait for an answer. */
export async function countKnocks(): Promise<number> {
	const row = theRow(await sql()<{ n: number }[]>`select count(*)::int as n from knock where answered_at is null`);
	return row.n;
}

export const KnockAnswer = Type.Union([
	Type.Object({
		do: Type.Literal('group'),
		group: Type.String({ maxLength: 120 }),
		until: Type.Optional(Type.Union([Type.String({ format: 'date' }), Type.Null()]))
	}),
	Type.Object({ do: Type.Literal('key'), until: Type.Optional(Type.Union([Type.String({ format: 'date' }), Type.Null()])) }),
	Type.Object({ do: Type.Literal('declined'), words: Type.Optional(Type.String({ maxLength: 2000 })) })
]);

/** Answers a knock, once. Gives whether the mail went out. */
export async function answerKnock(
	id: string,
	answer: Static<typeof KnockAnswer>,
	person: Pick<Person, 'id' | 'role'>,
	token?: Grant
): Promise<{ mailed: boolean }> {
	const actor = person.id;
	if (!/^[0-9a-f-]{36}$/.test(id)) throw new IanuaError('not-found');
	const [row] = await sql()<
		{ email: string; document_id: string; slug: string; title: string; person_id: string | null; name: string | null; role: string | null }[]
	>`
		select k.email, k.document_id, d.slug, d.title, p.id as person_id, p.name, p.role from knock k join document d on d.id = k.document_id
			left join person p on p.email = k.email and p.closed_at is null where k.id = ${id}`;
	if (!row) throw new IanuaError('not-found');
	const { name: siteName, zone } = await site();
	const document = `${settings().IANUA_ORIGIN}/d/${row.slug}`;
	const hello = row.name ? `${row.name},\n\n` : '';
	const { invite, key } = await db().transaction(async (tx) => {
		let invite = false;
		let key: { id: string; url: string } | null = null;
		// the answer is taken first, so that of two people answering at once one does
		const [knocked] = await tx
			.update(knock)
			.set({ answer: answer.do, answeredAt: new Date(), answeredBy: actor })
			.where(and(eq(knock.id, id), isNull(knock.answeredAt)))
			.returning({ id: knock.id });
		if (!knocked) throw new IanuaError('knock-answered');
		if (answer.do === 'group') {
			const [joined] = await tx.select().from(group).where(eq(group.slug, answer.group));
			if (!joined) throw new IanuaError('group-unknown', { slug: answer.group });
			if (row.role && row.role !== 'member') throw new IanuaError('not-valid', { detail: `${row.email} belongs to the staff` });
			const admitted = row.person_id ?? (await insertPerson(tx, { name: row.email, email: row.email, password: null, role: 'member' }, actor));
			invite = row.person_id === null;
			await insertMemberships(tx, admitted, [{ group: answer.group, from: dayOf(Date.now(), zone), until: answer.until }]);
			await tx.update(knock).set({ given: joined.slug }).where(eq(knock.id, id));
		}
		if (answer.do === 'key') {
			// a key that cannot be issued leaves the knock waiting
			const label = asLine(row.name ? `${row.name}, ${row.email}` : row.email);
			key = await issueKeyIn(tx, row.slug, { label, until: answer.until ?? null }, actor, { mailedTo: row.email, token });
			await tx.update(knock).set({ given: key.id }).where(eq(knock.id, id));
		}
		await writeAudit(tx, {
			actor,
			action: answer.do === 'declined' ? 'declined' : 'let-in',
			kind: 'document',
			thing: row.document_id,
			after: { knock: id, email: row.email, by: answer.do, ...(answer.do === 'group' ? { group: answer.group, until: answer.until ?? null } : {}) }
		});
		return { invite, key };
	});
	if (answer.do === 'declined') {
		const why = answer.words?.trim();
		const mailed = await sendMail({
			to: row.email,
			subject: `Your knock at ${siteName}`,
			text: `${hello}you asked to be let in at\n${document}\n\nThat is not possible.${why ? `\n\n${why}` : ''}\n`
		});
		return { mailed };
	}
	if (key) {
		const { url } = key;
		const mailed = await sendMail({
			to: row.email,
			subject: `You are let in at ${siteName}`,
			text: `${hello}you asked to be let in. Here is a key for “${row.title}”:\n\n${url}\n\nIt is yours: please do not hand it on.\n`
		});
		return { mailed };
	}
	if (invite) await mailInvitation({ name: row.email, email: row.email, role: 'member' }, person);
	const mailed = await sendMail({
		to: row.email,
		subject: `You are let in at ${siteName}`,
		text: `${hello}you asked to be let in. “${row.title}” is open to you now, once you have signed in:\n\n${document}\n${invite ? '\nAnother mail brings you the address at which you choose your password.\n' : ''}`
	});
	return { mailed };
}
