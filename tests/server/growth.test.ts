// What would grow for ever is let go of in time, and nothing else with it.
import { randomUUID } from 'node:crypto';
import { expect, it } from 'vitest';
import { sql } from '#server/db/client';
import { sweep } from '#server/intake/sweep';
import { site } from '#server/site/site';
import { member, staff } from './help';

it('sessions that are over, messages that went out, changes of years ago and people of other websites go; what is younger or waits stays', async () => {
	const s = sql();
	const [one, boss] = [await member(), await staff()];
	const ago = (days: number) => new Date(Date.now() - days * 86_400_000);
	const [old, young, waiting] = [randomUUID(), randomUUID(), randomUUID()];
	await s`insert into session (id, token, person_id, expires_at, created_at, updated_at) values
		(${old}, ${old}, ${one.id}, ${ago(1)}, ${ago(31)}, ${ago(31)}), (${young}, ${young}, ${one.id}, ${ago(-1)}, ${ago(29)}, ${ago(29)})`;
	await s`insert into verification (id, identifier, value, expires_at, created_at, updated_at) values (${old}, ${old}, '', ${ago(1)}, ${ago(1)}, ${ago(1)})`;
	const webhook = randomUUID();
	await s`insert into webhook (id, url, secret, events, withdrawn_at) values (${webhook}, 'https://told.example.org/', 'x', '{opened}', now())`;
	await s`insert into webhook_delivery (id, webhook_id, event_id, body, at, next_at, delivered_at) values
		(${old}, ${webhook}, ${old}, '{}', ${ago(32)}, null, ${ago(31)}), (${young}, ${webhook}, ${young}, '{}', ${ago(32)}, null, ${ago(29)}),
		(${waiting}, ${webhook}, ${waiting}, '{}', ${ago(40)}, ${ago(-1)}, null)`;
	await s`insert into audit (id, at, action, kind, thing) values (${old}, now() - interval '61 months', 'changed', 'site', ${old}), (${young}, now() - interval '59 months', 'changed', 'site', ${old})`;
	const { slug } = await boss.api<{ slug: string }>('POST', '/groups', { name: `Growing ${process.pid}` });
	const { id: website } = await boss.api<{ id: string }>('POST', '/websites', { origin: `https://grows-${process.pid}.example.org`, groups: [slug] });
	await s`insert into website_person (id, website_id, sub, name, seen_at) values (${old}, ${website}, 'a', 'A', now() - interval '15 months'), (${young}, ${website}, 'b', 'B', now() - interval '12 months')`;
	const { readership } = await site();
	await boss.api('PATCH', '/site', { readership: { ...readership, months: 13 } });

	await sweep(Date.now());
	await boss.api('PATCH', '/site', { readership: readership ?? null });
	const left = async (table: string, ids: string[]) =>
		(await s<{ id: string }[]>`select id::text as id from ${s(table)} where id::text in ${s(ids)}`).map(({ id }) => id);
	expect(await left('session', [old, young])).toEqual([young]);
	expect(await left('verification', [old])).toEqual([]);
	expect((await left('webhook_delivery', [old, young, waiting])).sort()).toEqual([young, waiting].sort());
	expect(await left('audit', [old, young])).toEqual([young]);
	expect(await left('website_person', [old, young])).toEqual([young]);
	await s`delete from webhook where id = ${webhook}`;
	await boss.send('DELETE', `/api/v1/websites/${website}`);
});
