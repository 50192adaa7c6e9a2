// Loads the demo scenario into a database that has no owner yet, and writes <data>/sign-in.json. A second run changes nothing.
import { randomInt } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { eq } from 'drizzle-orm';
import { dayOf } from '#core/access/hours';
import { closeDatabase, db, migrateDatabase, sql } from '#server/db/client';
import { document, edition, group, knock, news, person } from '#server/db/schema';
import { newId } from '#server/id';
import { changeDocument, setAside } from '#server/documents/change';
import { saveFilter } from '#server/documents/saved-filters';
import { documentView } from '#server/documents/view';
import { issueKey } from '#server/access/keys';
import { bringInStream } from '#server/intake/bring-in';
import { checkEdition } from '#server/intake/check';
import { bringInFromWeb, compareSource } from '#server/intake/source';
import { dismissHelpers } from '#server/pdf/helpers';
import { hashPassword } from '#server/people/auth';
import { addGroup, hasOwner, insertPerson } from '#server/people/directory';
import { mend } from '#server/placing/mismatches';
import { addPage, orderNavigation, publish } from '#server/placing/commands';
import { settings } from '#server/settings';
import { noticeNews } from '#server/news/out';
import { sumAgain } from '#server/readership/sums/keep';
import { saveSite, site } from '#server/site/site';
import * as society from './documents';
import { makePdf } from './pdf';
import { loadReadership } from './readership';
import * as scenario from './scenario';

const words = [
	'heron',
	'willow',
	'paddle',
	'sluice',
	'towline',
	'kingfisher',
	'lantern',
	'limestone',
	'aqueduct',
	'windlass',
	'mallard',
	'coping',
	'feeder',
	'summit',
	'alder',
	'bittern'
];
/** A password for this installation alone: the demo's people are alike everywhere, their passwords are not. */
const password = () => `${[1, 2, 3].map(() => words[randomInt(words.length)]).join('-')}-${randomInt(1000, 9999)}`;

const { IANUA_DATA, IANUA_ORIGIN, IANUA_PORT } = settings();
const signInFile = join(IANUA_DATA, 'sign-in.json');

const dayMs = 86_400_000;

async function load(): Promise<void> {
	const now = Date.now();
	const today = dayOf(now, scenario.site.zone);
	const ago = (days: number) => new Date(now - days * dayMs);
	const [staffPassword, memberPassword] = [password(), password()];
	const [staffHash, memberHash] = await Promise.all([hashPassword(staffPassword), hashPassword(memberPassword)]);
	await saveSite({ ...scenario.site, notice: scenario.lineAbove(today) });

	for (const name of scenario.groups) await addGroup(name, null);
	const groupIds = new Map((await db().select({ id: group.id, slug: group.slug }).from(group)).map((g) => [g.slug, g.id]));
	const members = scenario.members(today);
	const ids = await db().transaction(async (tx) => {
		const made: string[] = [];
		for (const m of members) made.push(await insertPerson(tx, { ...m, role: 'member', password: memberHash }, null));
		return made;
	});
	const editor = await db().transaction((tx) => insertPerson(tx, { ...scenario.staff[1]!, password: staffHash }, null));

	// a few at once, as the helpers do much of the work; in the order of the scenario afterwards, since the readership is drawn from it
	const waiting = [...society.documents.entries()];
	const brought: (Popular | null)[] = [];
	await Promise.all(
		[0, 1, 2].map(async () => {
			for (let next = waiting.shift(); next; next = waiting.shift()) brought[next[0]] = await loadDocument(next[1], editor, today, ago);
		})
	);
	const popular = brought.filter((document) => document !== null);
	const standins = JSON.parse(process.env.IANUA_STANDIN_PORTS ?? '{}') as { source?: number };
	if (standins.source) popular.push(await loadWatched(`http://127.0.0.1:${standins.source}${society.watched.path}`, editor));

	for (const { document: slug, ...given } of society.keys) await issueKey(slug, given, editor);

	for (const { document: slug, age, ...given } of scenario.knocks) {
		const [row] = await db().select({ id: document.id }).from(document).where(eq(document.slug, slug));
		const [by] = await db().select({ id: person.id }).from(person).where(eq(person.email, given.email));
		const answered = 'answer' in given ? { answeredAt: ago(age - 1), answeredBy: editor } : {};
		await db()
			.insert(knock)
			// the demo asks for documents that it has made
			.values({ id: newId(), documentId: row!.id, at: ago(age), ...given, ...answered, personId: given.reason === 'sign-in' ? null : (by?.id ?? null) });
	}

	for (const { published = true, ...page } of scenario.pages(today)) {
		const id = await addPage(page, editor);
		if (published) await publish(id, editor);
	}
	await orderNavigation(scenario.navigation, editor);
	await mend({ ...scenario.meantSideDoor, remedy: 'intended' }, editor);
	const readers = ids.map((id, i) => ({ id, memberships: members[i]!.memberships }));
	const entries = await loadReadership(popular, readers, groupIds, editor, now, scenario.site.zone);

	await sumAgain();
	// it came out when the scenario says, not while it was loaded
	await db().delete(news);
	await noticeNews(now);

	// The owner comes last: until there is one, a load that broke off counts as not made.
	const ownerId = await db().transaction((tx) => insertPerson(tx, { ...scenario.staff[0]!, password: staffHash }, null));
	for (const filter of scenario.savedFilters) await saveFilter(ownerId, filter);
	const [owner, member] = [scenario.staff[0]!, members[0]!];
	writeSignIn({
		staff: { email: owner.email, password: staffPassword },
		member: { email: member.email, password: memberPassword, groups: member.memberships.map((m) => m.group) }
	});
	console.log(
		`Loaded the demo: ${society.documents.length + 1} documents, ${members.length} members, ${scenario.pages(today).length} pages, ${entries} entries in the ledger`
	);
}

interface Popular {
	readonly slug: string;
	readonly weekly: number;
	readonly age: number;
}

/** A document of the scenario, with its door and its editions, checked; null where readers never come to it. */
async function loadDocument(demo: society.DemoDocument, editor: string, today: string, ago: (days: number) => Date): Promise<Popular | null> {
	const bringIn = async (part: Pick<society.DemoDocument, 'fileName' | 'sheet' | 'age'>, editionOf?: string) => {
		const bytes = await makePdf({ ...part.sheet, day: scenario.day(today, -part.age) });
		const made = await bringInStream(Readable.from([bytes]), part.fileName, editor, () => ({ editionOf, unchecked: true }));
		await db()
			.update(edition)
			.set({ createdAt: ago(part.age) })
			.where(eq(edition.id, made.edition));
		return made;
	};
	const { id, slug: first, edition: firstEdition } = await bringIn(demo.before ?? demo);
	const { slug } = await changeDocument(
		first,
		{
			slug: society.settledSlugs[demo.sheet.title] ?? first,
			description: demo.description,
			folder: demo.folder,
			topics: [...demo.topics],
			...(scenario.keptBy[demo.folder] ? { fields: { 'kept-by': scenario.keptBy[demo.folder]! } } : {}),
			...(demo.door ? { door: demo.door } : {})
		},
		editor
	);
	await db()
		.update(document)
		.set({ createdAt: ago((demo.before ?? demo).age) })
		.where(eq(document.id, id));
	await checkEdition(firstEdition);
	if (demo.before) await checkEdition((await bringIn(demo, slug)).edition);
	if (demo.aside === undefined) return demo.door ? { slug, weekly: demo.weekly, age: demo.age } : null;
	await setAside(slug, editor);
	await db()
		.update(document)
		.set({ setAsideAt: ago(demo.aside) })
		.where(eq(document.id, id));
	return null;
}

/** A notice from another website, fetched and watched; then that website changes it. */
async function loadWatched(url: string, editor: string): Promise<Popular> {
	const { watched } = society;
	const { id, slug, edition: made } = await bringInFromWeb({ url, title: watched.title, folder: watched.folder, watch: true, unchecked: true }, editor);
	const at = new Date(Date.now() - watched.age * dayMs);
	await db().update(edition).set({ createdAt: at }).where(eq(edition.id, made));
	await db().update(document).set({ createdAt: at }).where(eq(document.id, id));
	await changeDocument(slug, { description: watched.description, topics: [...watched.topics], door: watched.door }, editor);
	await checkEdition(made);
	await fetch(url, { method: 'PUT', body: new Uint8Array(await makePdf(scenario.notice('2026-11-23', true))) });
	await compareSource(slug);
	return { slug, weekly: watched.weekly, age: watched.age };
}

/** The stand-in of another website may frame documents, on whichever port it stands this time. */
async function letFrame(): Promise<void> {
	const { outside } = JSON.parse(process.env.IANUA_STANDIN_PORTS ?? '{}') as { outside?: number };
	if (!outside) return;
	const now = await site();
	const framer = `127.0.0.1:${outside}`;
	const framers = now.framers ?? [];
	if (!framers.includes(framer)) await saveSite({ ...now, framers: [...framers.filter((f) => !f.startsWith('127.0.0.1:')), framer] });
}

/** What is watched is watched where the stand-in of another website stands this time. */
async function follow(): Promise<void> {
	const { source } = JSON.parse(process.env.IANUA_STANDIN_PORTS ?? '{}') as { source?: number };
	if (source) await sql()`update source set url = regexp_replace(url, '^http://127\\.0\\.0\\.1:\\d+/', ${`http://127.0.0.1:${source}/`})`;
}

/** Programs sign in by this file; the ports are those of this start. */
function writeSignIn(people: object): void {
	const standins = JSON.parse(process.env.IANUA_STANDIN_PORTS ?? '{}') as Record<string, number>;
	const ports = { web: IANUA_PORT, postgres: Number(process.env.IANUA_POSTGRES_PORT) || null, ...standins };
	writeFileSync(signInFile, `${JSON.stringify({ origin: IANUA_ORIGIN, ...people, ports }, null, '\t')}\n`, { mode: 0o600 });
}

await migrateDatabase();
if (!(await hasOwner())) {
	if (await documentView('cruising-guide')) throw new Error('An earlier load of the demo broke off. Remove the data folder and start again.');
	await load();
} else if (existsSync(signInFile)) {
	const { staff, member } = JSON.parse(readFileSync(signInFile, 'utf8')) as { staff: object; member: object };
	writeSignIn({ staff, member });
	await follow();
}
await letFrame();
dismissHelpers();
await closeDatabase();
