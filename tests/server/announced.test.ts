// What is announced: that it is there, told to everyone, and nothing more of it.
import { expect, it } from 'vitest';
import { member, pdf, send, staff, visitor, type Client, type DocumentJson } from './help';

const html = async (who: Client, path: string) => (await (await who.get(path)).text()).replace(/<!--.*?-->/g, '');
/** The part of a list for what is kept for some. */
const keptPart = (page: string) => /<section[^>]* class="kept-for-some[\s\S]*?<\/section>/.exec(page)?.[0] ?? '';

it('is in lists, find and on its turned-away page with title, description and for whom; never with words inside, pages, size, cover or file', async () => {
	const boss = await staff();
	const [warden, other] = [await member({ group: 'Announced wardens' }), await member({ group: 'Announced others' })];
	const word = `zephyr${process.pid}`;
	const folder = `Announced ${process.pid}`;
	const make = async (title: string, door: object) => {
		const { slug } = (await (await send(await pdf([`windlass ${word}inside`, 'two', 'three']), `${title}.pdf`, { title, folder })).json()) as DocumentJson;
		await boss.api('PATCH', `/documents/${slug}`, { description: `Procedures of the ${word}`, topics: [`${word}topic`], door });
		return slug;
	};
	const admits = { groups: ['announced-wardens'], people: [other.email] };
	const told = await make('The told handbook', { position: 'keyed', groups: ['announced-wardens'], announced: true });
	const quiet = await make('The quiet handbook', { position: 'keyed', groups: ['announced-wardens'] });
	const shut = await make('The shut handbook', { position: 'shut', announced: true });
	const early = await make('The early handbook', { position: 'keyed', ...admits, people: [], announced: true, from: '2099-01-01' });
	const path = `/announced-${process.pid}`;
	await boss.api('POST', '/pages', {
		path,
		title: 'The shelf of handbooks',
		layout: 'catalogue',
		content: { folders: [folder], show: 'list', order: 'title', beside: false, filters: true },
		door: { position: 'open' }
	});
	await boss.api('POST', `/pages${path}/publish`, {});

	for (const who of [visitor(), other]) {
		for (const at of [path, `${path}?q=handbook`, `${path}?q=${word}`, `/find?q=${word}`]) {
			const seen = await html(who, at);
			expect([at, keptPart(seen).includes('The told handbook'), keptPart(seen).includes('For Announced wardens')]).toEqual([at, true, true]);
			for (const hidden of [quiet, shut, early]) expect([at, seen.includes(hidden)]).toEqual([at, false]);
			for (const never of ['3 pages', 'windlass', `/d/${told}/cover`, `/d/${told}/file`, ' kB'])
				expect([at, never, seen.includes(never)]).toEqual([at, never, false]);
		}
		// what is inside it and how it is filed finds nothing, and narrows nothing
		for (const at of [`${path}?q=${word}inside`, `/find?q=${word}inside`, `${path}?topic=${word}topic`, `/find?q=${word}topic`]) {
			const seen = await html(who, at);
			expect([at, seen.includes('The told handbook')]).toEqual([at, false]);
		}
		const away = await html(who, `/d/${told}`);
		expect(away).toMatch(/<h1[^>]*>The told handbook<\/h1>/);
		expect(away).toContain(`Procedures of the ${word}`);
		expect(away).toContain('For Announced wardens');
		expect((await who.get(`/d/${told}`)).status).toBe(who === other ? 403 : 401);
		expect((await who.get(`/d/${told}/file`)).status).toBe(who === other ? 403 : 401);
		expect((await who.get(`/d/${told}/cover/300.webp`)).status).toBe(who === other ? 403 : 401);
		expect(await html(who, `/d/${quiet}`)).not.toContain('The quiet handbook');
		expect(await html(who, `/d/${early}`)).not.toContain('The early handbook');
	}
	expect(await html(visitor(), '/sitemap.xml')).not.toContain(told);

	// whom it is for reads it where the others see its door, and it is not told twice
	const mine = await html(warden, path);
	expect(keptPart(mine)).toBe('');
	expect(mine).toContain(`/d/${told}/cover`);
	expect(mine).toContain('The quiet handbook');
	expect(await html(warden, `${path}?q=${word}inside`)).toContain('The told handbook');

	// no name of a person is told
	await boss.api('PATCH', `/documents/${told}`, { door: { groups: [], people: [other.email] } });
	expect(keptPart(await html(visitor(), path))).toContain('For people admitted by name');
	expect(await html(other, path)).toContain(`/d/${told}/cover`);
	// off again, it is as if it were not there
	await boss.api('PATCH', `/documents/${told}`, { door: { announced: false } });
	expect(await html(visitor(), path)).not.toContain('The told handbook');
	expect(await html(visitor(), `/d/${told}`)).not.toContain('The told handbook');
});

it('tells of a page too, by its title alone', async () => {
	const boss = await staff();
	const path = `/announced-page-${process.pid}`;
	const warden = await member({ group: 'Announced wardens' });
	const words = `murmur${process.pid}`;
	await boss.api('POST', '/pages', {
		path,
		title: `Wardens ${words} room`,
		layout: 'article',
		content: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: `Inside: ${words}inside` }] }] },
		door: { position: 'keyed', groups: ['announced-wardens'], announced: true }
	});
	await boss.api('POST', `/pages${path}/publish`, {});
	const found = await html(visitor(), `/find?q=${words}`);
	expect(found).toContain(`Wardens ${words} room`);
	expect(found).toContain('For Announced wardens');
	expect(await html(visitor(), `/find?q=${words}inside`)).not.toContain(`Wardens ${words} room`);
	expect(await html(visitor(), path)).toMatch(new RegExp(`<h1[^>]*>Wardens ${words} room</h1>`));
	expect(await html(warden, `/find?q=${words}inside`)).toContain(`Wardens ${words} room`);
	await boss.api('PATCH', `/pages${path}`, { door: { announced: false } });
	expect(await html(visitor(), `/find?q=${words}`)).not.toContain(`Wardens ${words} room`);
});
