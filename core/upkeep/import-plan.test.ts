import { describe, expect, it } from 'vitest';
import { planImport, type Arriving, type ThereAlready } from './import-plan';
import type { ExportLine } from './portable';

const sha = (letter: string) => letter.repeat(64);
const at = '2026-11-30T10:00:00.000Z';
const door: ExportLine<'documents'>['door'] = {
	position: 'open',
	allMembers: false,
	groups: [],
	people: [],
	follows: null,
	from: null,
	until: null,
	allow: { save: true, print: true },
	listed: true,
	announced: false,
	stamped: false,
	turnedAway: null
};
const document = (slug: string, sha256: string, more: Partial<ExportLine<'documents'>> = {}): ExportLine<'documents'> => ({
	slug,
	title: slug,
	description: '',
	folder: '',
	topics: [],
	fields: {},
	review: null,
	language: null,
	cover: null,
	coverFile: null,
	coverAlt: '',
	reading: null,
	createdAt: at,
	setAsideAt: null,
	addresses: [],
	formerAddresses: [],
	source: null,
	door,
	editions: [{ number: 1, file: `files/${slug}.pdf`, fileName: 'a.pdf', sha256, bytes: 1, origin: 'upload', createdAt: at, inForce: true }],
	...more
});
const person = (email: string, role: 'owner' | 'editor' | 'member' = 'member') => ({
	email,
	name: email,
	role,
	suspended: false,
	createdAt: at,
	memberships: []
});
const page = (path: string) =>
	({ path, title: path, layout: 'article', language: null, navigation: null, label: null, createdAt: at, setAsideAt: null, door, draft: { title: path, content: {} }, revisions: [], published: null, sideDoors: [] }) as ExportLine<'pages'>; // prettier-ignore
const key = (document: string) => ({ id: '01990000-0000-7000-8000-000000000000', document, label: 'x', hash: 'x', passwordHash: null, allow: { save: true, print: true }, until: null, openings: null, used: 0, mailedTo: null, createdAt: at, withdrawnAt: null }); // prettier-ignore

const nothing: Arriving = { groups: [], people: [], documents: [], pages: [], keys: [] };
const empty: ThereAlready = { groups: new Set(), people: new Set(), documents: new Map(), formerSlugs: new Set(), pages: new Set(), fields: new Set() };

describe('what an import would change', () => {
	it('takes in what is not there, each by its name', () => {
		const plan = planImport(
			{
				groups: [{ slug: 'wardens', name: 'W', description: '', createdAt: at }, { slug: 'friends', name: 'F', description: '', createdAt: at }], // prettier-ignore
				people: [person('ann@example.org'), person('ben@example.org'), person('boss@example.org', 'owner')],
				documents: [document('map', sha('a')), document('guide', sha('b'))],
				pages: [page('/'), page('/new')],
				keys: [key('map'), key('guide')]
			},
			{ ...empty, groups: new Set(['friends']), people: new Set(['ben@example.org']), documents: new Map([['guide', sha('b')]]), pages: new Set(['/']) }
		);
		expect(plan.groups.map((g) => g.slug)).toEqual(['wardens']);
		expect(plan.people.map((p) => p.email)).toEqual(['ann@example.org']);
		expect(plan.documents.map((d) => d.slug)).toEqual(['map']);
		expect(plan.pages.map((p) => p.path)).toEqual(['/new']);
		// a key of a document that is here already is that site's, not this one's
		expect(plan.keys.map((k) => k.document)).toEqual(['map']);
		expect([...plan.slugs]).toEqual([['map', 'map'], ['guide', 'guide']]); // prettier-ignore
		expect(plan.moved.size).toBe(0);
		expect(plan.notes).toEqual([
			'1 person of the staff stays out: invite them, or make them owners with ianua owner create.',
			'The page “/” stays out: a page stands at /.'
		]);
	});
	it('gives a document the next free slug where another has its own, and says where pages have to follow', () => {
		const plan = planImport(
			{ ...nothing, documents: [document('map', sha('a'), { addresses: ['old-map', 'plan'] }), document('map-2', sha('c'))] },
			{ ...empty, documents: new Map([['map', sha('b')]]), formerSlugs: new Set(['map-3']) }
		);
		expect(plan.documents.map((d) => d.slug)).toEqual(['map-2', 'map-2-2']);
		expect(Object.fromEntries(plan.moved)).toEqual({ map: 'map-2', 'old-map': 'map-2', plan: 'map-2', 'map-2': 'map-2-2' });
	});
	it('a former slug that means another document here is followed, one that is free is left to lead by itself', () => {
		const plan = planImport(
			{ ...nothing, documents: [document('map', sha('a'), { addresses: ['taken', 'free'] })] },
			{ ...empty, documents: new Map([['taken', sha('z')]]) }
		);
		expect(Object.fromEntries(plan.moved)).toEqual({ taken: 'map' });
	});
	it('where addresses come from titles, the same file is the same document', () => {
		const there = { ...empty, documents: new Map([['towpath-map', sha('a')]]) };
		expect(planImport({ ...nothing, documents: [document('map', sha('a'))], sameFileIsSame: true }, there)).toMatchObject({
			documents: [],
			slugs: new Map([['map', 'towpath-map']])
		});
		expect(planImport({ ...nothing, documents: [document('map', sha('a'))] }, there).documents).toHaveLength(1);
	});
	it('tells which fields the site does not have', () => {
		const plan = planImport(
			{ ...nothing, documents: [document('map', sha('a'), { fields: { department: 'Works', colour: 'red' } })] },
			{ ...empty, fields: new Set(['colour']) }
		);
		expect(plan.notes).toEqual(['Fields that this site does not have stay out: department.']);
	});
});
