// Mails news to those who wished it: what came out since they were last told, of what they may read. Each edition is told to each once.
import { newsMail, type NewsTime } from '#core/news/wish';
import { nextMailing } from '#core/readership/mailing';
import type { Language } from '#core/words/words';
import { readableBy } from '../access/readable';
import { sql } from '../db/client';
import { sendMail } from '../mail/send';
import { personById } from '../people/who';
import { enterMailed } from '../reading/writer';
import { settings } from '../settings';
import { site } from '../site/site';
import { newsAmong, noticeNews } from './out';
import { endAddress } from './wishes';

/** Ms until a mail that could not be sent is tried again. */
const again = 600_000;
/** More than these are not looked at for one mail. */
const most = 500;

/** Looks what came out, and tells all who are due. */
export async function tellNews(now: number): Promise<void> {
	await noticeNews(now);
	const due = await sql()<{ person: string; every: NewsTime }[]>`
		select distinct w.person_id as person, w.every from news_wish w join person p on p.id = w.person_id
		where w.next_at <= ${new Date(now)} and not p.suspended and p.closed_at is null
			and (w.every = 'week' or exists (select from news where at > w.looked_at or wider_at > w.looked_at))`;
	for (const { person, every } of due) await tell(person, every, now);
}

/** Tells one person of what their wishes of one kind come to. Each is taken by one server. */
async function tell(person: string, every: NewsTime, now: number): Promise<void> {
	const [caller, { zone, name: siteName }] = await Promise.all([personById(person), site()]);
	if (!caller?.person) return;
	const at = new Date(now);
	const { name, email } = caller.person;
	const { ids: readable } = await readableBy(caller);
	await sql().begin(async (tx) => {
		const wishes = await tx<{ id: string; language: Language }[]>`
			select id, language from news_wish where person_id = ${person} and every = ${every} and next_at <= ${at} order by id for update skip locked`;
		const [first] = wishes;
		if (!first) return;
		const ids = wishes.map((wish) => wish.id);
		const items = await newsAmong(
			readable,
			tx`not exists (select from news_told x where x.person_id = ${person} and x.edition_id = n.edition_id)
				and exists (select from news_wish w where w.id = any(${ids}::uuid[]) and (w.document_id = d.id or w.folder = d.folder or (w.document_id is null and w.folder is null))
					and greatest(n.at, n.wider_at) > w.looked_at and greatest(n.at, n.wider_at) <= ${at}
					-- a door that came to admit more is no news to whoever knows the document
					and (n.at > w.made_at or not exists (select from ledger l where l.person_id = ${person} and l.document_id = d.id and l.kind in ('opened', 'saved'))))`,
			most
		);
		const next = every === 'week' ? new Date(nextMailing(now, 'week', zone)) : at;
		const { IANUA_ORIGIN } = settings();
		const end = endAddress(person);
		const told = items.map(({ slug, ...item }) => ({ ...item, address: `${IANUA_ORIGIN}/d/${slug}?from=news` }));
		const sent = !told.length || (await sendMail({ to: email, ...newsMail({ name, site: siteName, items: told, end }, first.language), end }));
		if (!sent) {
			await tx`update news_wish set next_at = ${new Date(now + again)} where id = any(${ids}::uuid[])`;
			return;
		}
		await tx`update news_wish set looked_at = ${at}, next_at = ${next} where id = any(${ids}::uuid[])`;
		if (!items.length) return;
		await tx`insert into news_told (person_id, edition_id) select ${person}, e from unnest(${items.map((item) => item.edition)}::uuid[]) e on conflict do nothing`;
		for (const item of items) await enterMailed(tx, 'news', { document: item.document, edition: item.edition, person });
	});
}
