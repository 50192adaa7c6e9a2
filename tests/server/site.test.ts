// The site that readers meet: its frame on every page, find over all of it, the document's page, and what it says it keeps.
import { describe, expect, it } from 'vitest';
import { document, member, origin, pdf, send, staff, visitor, type Client, type DocumentJson } from './help';

/** What is answered, without the comments by which a browser would take it up. */
const html = async (who: Client, path: string, headers: Record<string, string> = {}) =>
	(await (await who.get(path, headers)).text()).replace(/<!--.*?-->/g, '');
const article = (...words: string[]) => ({
	type: 'doc',
	content: words.map((text) => ({ type: 'paragraph', content: [{ type: 'text', text }] }))
});
let made = 0;
async function page(title: string, content: unknown, more: Record<string, unknown> = {}): Promise<string> {
	const boss = await staff();
	const path = `/site-page-${process.pid}-${++made}`;
	await boss.api('POST', '/pages', { path, title, layout: 'article', content, inNavigation: false, ...more });
	await boss.api('POST', `/pages${path}/publish`, {});
	return path;
}

describe('the reading room', () => {
	it('leads back to the page from which somebody came, where they may open it, and else to the document', async () => {
		const boss = await staff();
		const paper = await document({ position: 'open' });
		const id = `way-back-${process.pid}`;
		const path = await page('Where it is placed', {
			type: 'doc',
			content: [{ type: 'placement', attrs: { id, document: paper.slug, form: 'button', press: 'tab' } }]
		});
		const back = async () => /<a[^>]* class="edged[^"]*"[^>]* href="([^"]+)"/.exec(await html(visitor(), `/d/${paper.slug}/read?from=${id}`))?.[1];
		expect(await back()).toBe(path);
		await boss.api('PATCH', `/pages${path}`, { door: { position: 'keyed' } });
		expect(await back()).toBe(`/d/${paper.slug}`);
		await boss.api('PATCH', `/pages${path}`, { door: { position: 'open' } });
		expect(await back()).toBe(path);
	});
});

describe('the frame', () => {
	it('is around every page: name, navigation, find, foot with the languages and what is kept', async () => {
		const boss = await staff();
		const before = (await boss.api<{ paths: string[] }>('GET', '/navigation').catch(() => ({ paths: [] as string[] }))).paths;
		const path = await page('A page with a long and winding title', article('Words of it.'), { inNavigation: true, label: 'Winding' });
		const shut = await document({ position: 'shut' });
		const kept = await document({ position: 'keyed', allMembers: true });
		await boss.api('PATCH', '/site', {
			foot: { address: 'The Toll House\nTernwell', words: 'Said below.' },
			notice: { words: 'Closed on Monday', until: '2099-01-01' }
		});
		try {
			for (const at of [
				path,
				'/find',
				'/privacy',
				'/sign-in',
				`/d/${shut.slug}`,
				`/d/${kept.slug}`,
				`/d/${kept.slug}/knock`,
				'/never-was',
				`/k/${'x'.repeat(32)}`
			]) {
				const seen = await html(visitor(), at);
				expect([at, /<nav[^>]* aria-label="Site"[\s\S]*?>Winding<\/a>/.test(seen)]).toEqual([at, true]);
				expect([
					at,
					/<form[^>]* action="\/find"/.test(seen),
					/<footer[\s\S]*The Toll House[\s\S]*Said below\.[\s\S]*href="\/privacy"[\s\S]*lang="ar" dir="rtl"/.test(seen)
				]).toEqual([at, true, true]);
			}
			expect(await html(visitor(), path)).toMatch(/aria-current="page"[^>]*>Winding<\/a>/);
			expect(await html(visitor(), path)).toContain('Closed on Monday');
			await boss.api('PATCH', '/site', { notice: { words: 'Closed on Monday', until: '2020-01-01' } });
			expect(await html(visitor(), path)).not.toContain('Closed on Monday');
			// in another language everything around is in it, and what is said by the page stays in its own
			await boss.api('PATCH', `/pages${path}`, { language: 'en' });
			const german = await html(visitor(), `${path}?lang=de`);
			expect(german).toMatch(/<html[^>]* lang="de"/);
			expect(german).toMatch(/<main[^>]* lang="en"/);
			expect(german).toContain('Anmelden');
		} finally {
			await boss.api('PATCH', '/site', { foot: null, notice: null });
			await boss.api('PATCH', '/navigation', { paths: before });
		}
	});
	it('the label of a page is its own: short, given by the API, and taken away again', async () => {
		const boss = await staff();
		const path = await page('Called at length', article('Words.'));
		await boss.api('PATCH', `/pages${path}`, { label: 'Short' });
		expect((await boss.api<{ label: string }>('GET', `/pages${path}`)).label).toBe('Short');
		expect((await boss.send('PATCH', `/api/v1/pages${path}`, { label: 'x'.repeat(31) })).status).toBe(422);
		await boss.api('PATCH', `/pages${path}`, { label: null });
		expect((await boss.api<{ label: string | null }>('GET', `/pages${path}`)).label).toBeNull();
	});
});

describe('find over the site', () => {
	it('pages and documents, to each what they may read; words in a line, with the pages on which they stand', async () => {
		const boss = await staff();
		const word = `zanderfisch${process.pid}`;
		const keeper = await member({ group: 'Find keepers' });
		const other = await member({ group: 'Find others' });
		await page('Open to all', article('First words.', `Here swims the ${word} in the morning.`));
		await page('Kept for some', article(`And here the ${word} sleeps.`), { door: { position: 'keyed', groups: ['find-keepers'] } });
		await page('With the address alone', article(`A hidden ${word}.`), { door: { position: 'ajar' } });
		const make = async (title: string, door: Record<string, unknown>) => {
			const { slug } = (await (await send(await pdf(`${title} ${word}`, 3), `${title}.pdf`)).json()) as DocumentJson;
			await boss.api('PATCH', `/documents/${slug}`, { title, door, language: 'en' });
			return slug;
		};
		await make('Open paper', { position: 'open' });
		await make('Kept paper', { position: 'keyed', groups: ['find-keepers'] });
		await make('Shut paper', { position: 'shut' });
		const titles = async (who: Client) => {
			const seen = await html(who, `/find?q=${word}`);
			return ['Open to all', 'Kept for some', 'With the address alone', 'Open paper', 'Kept paper', 'Shut paper'].filter((title) =>
				seen.includes(`>${title}</a>`)
			);
		};
		expect(await titles(visitor())).toEqual(['Open to all', 'Open paper']);
		expect(await titles(other)).toEqual(['Open to all', 'Open paper']);
		expect(await titles(keeper)).toEqual(['Open to all', 'Kept for some', 'Open paper', 'Kept paper']);
		const seen = await html(visitor(), `/find?q=${word}`);
		expect(seen).toMatch(new RegExp(`swims the <mark[^>]*>${word}</mark> in the morning`));
		expect(seen).toMatch(/href="\/d\/open-paper[^"]*\/read#page=1&amp;search=|href="\/d\/open-paper[^"]*\/read#page=1&search=/);
		const nothing = await html(visitor(), `/find?q=${word}nowhere`);
		expect(nothing).toContain(`Nothing with “${word}nowhere”`);
		expect(await html(visitor(), `/find?q=${word}&lang=fr`)).toContain('page de ce site');
		// without words all that may be read
		expect(await html(visitor(), '/find')).toContain('>Open paper</a>');
	});
});

describe('addresses', () => {
	it('keep a title in another script, spelt in Latin letters', async () => {
		const slugs: string[] = [];
		for (const title of ['Правила за шлюзове', 'Κανόνες', '운하 안내', '運河の地図']) {
			const form = new FormData();
			form.append('file', new Blob([(await pdf(`${title} ${process.pid}`)) as BlobPart], { type: 'application/pdf' }), 'x.pdf');
			form.append('title', title);
			slugs.push(((await (await (await staff()).send('POST', '/api/v1/documents', form)).json()) as DocumentJson).slug.replace(/-\d+$/, ''));
		}
		// spelt as the package any-ascii has it
		expect(slugs).toEqual(['pravila-za-shlyuzove', 'kanones', 'unha-annae', 'yunhenodetu']);
	});
});

describe('the document’s page', () => {
	it('says what it is, for people and for search engines', async () => {
		const boss = await staff();
		const paper = await document({ position: 'open' }, 3);
		await boss.api('PATCH', `/documents/${paper.slug}`, { description: 'All about it.', folder: 'Site tests', topics: ['site-tests'] });
		const sister = await document({ position: 'open' }, 2);
		await boss.api('PATCH', `/documents/${sister.slug}`, { topics: ['site-tests'], title: 'Its sister' });
		const hidden = await document({ position: 'shut' }, 2);
		await boss.api('PATCH', `/documents/${hidden.slug}`, { topics: ['site-tests'], title: 'Its hidden brother' });
		const seen = await html(visitor(), `/d/${paper.slug}`);
		const data = JSON.parse(/<script type="application\/ld\+json">(.*?)<\/script>/.exec(seen)![1]!) as Record<string, unknown>;
		// schema.org, DigitalDocument
		expect(data).toMatchObject({
			'@type': 'DigitalDocument',
			numberOfPages: 3,
			contentUrl: `${origin}/d/${paper.slug}/file`,
			publisher: { '@type': 'Organization' }
		});
		expect(seen).toContain(`href="/d/${paper.slug}/text"`);
		expect(seen).toContain('>Its sister</a>');
		expect(seen).not.toContain('Its hidden brother');
		expect(seen).toMatch(/property="og:image" content="[^"]*\/cover\/1200\.jpg"/);
		const picture = await visitor().get(`/d/${paper.slug}/cover/1200.jpg`);
		expect([picture.status, picture.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
		expect(
			Buffer.from(await picture.arrayBuffer())
				.subarray(0, 2)
				.toString('hex')
		).toBe('ffd8');
		// RFC 6596
		const file = await visitor().get(`/d/${paper.slug}/file`);
		expect(file.headers.get('link')).toBe(`<${origin}/d/${paper.slug}>; rel="canonical"`);
		await file.arrayBuffer();
		await boss.api('PATCH', `/documents/${paper.slug}`, { door: { position: 'open', allow: { save: false, print: false } } });
		expect(JSON.parse(/<script type="application\/ld\+json">(.*?)<\/script>/.exec(await html(visitor(), `/d/${paper.slug}`))![1]!)).not.toHaveProperty(
			'contentUrl'
		);
	});
	it('words are found in it by those who may read it', async () => {
		const word = `wehrwasser${process.pid}`;
		const { slug } = (await (await send(await pdf(`Inside ${word}`, 3), 'inside.pdf')).json()) as DocumentJson;
		await (await staff()).api('PATCH', `/documents/${slug}`, { door: { position: 'open' } });
		expect(await html(visitor(), `/d/${slug}?q=${word}`)).toMatch(new RegExp(`<mark[^>]*>${word}</mark>`));
		expect(await html(visitor(), `/d/${slug}?q=${word}x`)).toContain(`Nothing with “${word}x”`);
	});
});

describe('what is kept of a visit', () => {
	it('is told by the settings in force, in every language, and says when the browser asks for less', async () => {
		const boss = await staff();
		const { readership } = await boss.api<{ readership?: object | null }>('GET', '/site').catch(() => ({ readership: null }));
		try {
			const telling = async (settings: object) => {
				await boss.api('PATCH', '/site', { readership: settings });
				return html(visitor(), '/privacy');
			};
			expect(await telling({ nameless: 'cookie', months: 14 })).toMatch(/30 days[\s\S]*14 months/);
			expect(await telling({ nameless: 'nothing' })).toContain('it is only counted that somebody opened it');
			expect(await html(visitor(), '/privacy?lang=de')).toContain('wird nur gezählt');
			expect(await html(visitor(), '/privacy')).not.toContain('Your browser asks for this now');
			expect(await html(visitor(), '/privacy', { 'sec-gpc': '1' })).toContain('Your browser asks for this now');
		} finally {
			await boss.api('PATCH', '/site', { readership: readership ?? null });
		}
	});
	it('on a shared browser the place in what was read goes when one signs out (Clear Site Data)', async () => {
		const someone = await member({ group: 'Leavers' });
		const out = await fetch(`${origin}/sign-in?/out`, {
			method: 'POST',
			redirect: 'manual',
			headers: { ...someone.headers, origin, accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' }
		});
		expect([out.status, out.headers.get('clear-site-data')]).toEqual([303, '"storage"']);
	});
});
