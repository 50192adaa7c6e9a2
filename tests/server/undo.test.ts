// What offers undo puts back everything that it changed: each field of a door, from the server's own record. And what is set aside is told of.
import { expect, it } from 'vitest';
import { DoorChange } from '#core/access/door';
import { document, member, staff, visitor, type DocumentJson } from './help';

type Undo = { undo: unknown[]; asks?: { page: string; document: string; placement: string; front: boolean }[] };

it('every field of a door, changed and undone', async () => {
	const boss = await staff();
	const someone = await member({ group: 'Undone' });
	const path = `/undone-${process.pid}`;
	await boss.api('POST', '/pages', { path, title: 'Undone', layout: 'article', content: { type: 'doc', content: [] } });
	const cases: Record<string, unknown> = {
		position: 'open',
		allMembers: true,
		groups: ['undone'],
		people: [someone.email],
		follows: path,
		from: '2026-01-01',
		until: '2099-01-01',
		allow: { save: false, print: false },
		listed: false,
		stamped: true,
		turnedAway: { heading: 'Not now', words: 'Come back.', button: { label: 'Home', target: '/' }, knock: false }
	};
	// a field that is new has to be given a case here
	expect(Object.keys(cases).sort()).toEqual(Object.keys(DoorChange.properties).sort());
	const { slug } = await document({ position: 'keyed' });
	const door = async () => {
		const { sentence: _s, count: _c, ...rest } = (await boss.api<DocumentJson>('GET', `/documents/${slug}`)).door;
		return rest;
	};
	const before = await door();
	for (const [field, value] of Object.entries(cases)) {
		const { undo } = await boss.api<Undo>('POST', '/bulk', { documents: [slug], door: { [field]: value } });
		expect([field, (await door()) as unknown]).not.toEqual([field, before]);
		await boss.api('POST', '/bulk/undo', { undo });
		expect([field, await door()]).toEqual([field, before]);
	}
	const { undo } = await boss.api<Undo>('POST', '/bulk', { documents: [slug], door: cases });
	await boss.api('POST', '/bulk/undo', { undo });
	expect(await door()).toEqual(before);
});

it('a document set aside that readers meet on a page: the places are told first, and the dead end afterwards', async () => {
	const boss = await staff();
	const paper = await document({ position: 'open' });
	const path = `/met-${process.pid}`;
	const id = 'placement-met-1';
	await boss.api('POST', '/pages', {
		path,
		title: 'Where it is met',
		layout: 'article',
		content: { type: 'doc', content: [{ type: 'placement', attrs: { id, document: paper.slug, form: 'button', press: 'page' } }] },
		door: { position: 'open' }
	});
	await boss.api('POST', `/pages/${path.slice(1)}/publish`, {});
	const asked = await boss.api<Undo>('POST', '/bulk', { documents: [paper.slug], aside: true, ask: true });
	expect(asked).toMatchObject({ undo: [], asks: [{ page: path, document: paper.slug, placement: id, front: false }] });
	expect((await visitor().get(`/d/${paper.slug}`)).status).toBe(200);

	const { undo } = await boss.api<Undo>('POST', '/bulk', { documents: [paper.slug], aside: true });
	expect((await visitor().get(`/d/${paper.slug}`)).status).toBe(404);
	const found = async () => (await boss.api<{ items: { kind: string; remedies: string[] }[] }>('GET', `/mismatches?page=${path}`)).items;
	expect(await found()).toMatchObject([{ kind: 'dead-end', remedies: ['restore', 'take-out'] }]);
	await boss.api('POST', '/mismatches', { page: path, document: paper.slug, placement: id, remedy: 'restore' });
	expect(await found()).toEqual([]);
	expect((await visitor().get(`/d/${paper.slug}`)).status).toBe(200);
	await boss.api('POST', '/bulk', { documents: [paper.slug], aside: true });
	await boss.api('POST', '/bulk/undo', { undo });
	expect((await visitor().get(`/d/${paper.slug}`)).status).toBe(200);
	// with nothing in the way, nothing is asked
	const lone = await document({ position: 'open' });
	expect((await boss.api<Undo>('POST', '/bulk', { documents: [lone.slug], aside: true, ask: true })).asks).toBeUndefined();
});
