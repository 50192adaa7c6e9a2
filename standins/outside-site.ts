// Another website, that shows documents of ours in every form there is for that: for trying and testing.
import { createServer } from 'node:http';
import { coverCode, elementCode, frameCode, linkCode } from '#core/placing/outside';
import { defaultsOf, forms } from '#core/placing/placement';

/** Under which one of its pages stands: nothing but what docs/embedding.md names. */
const strict = (origin: string) => `default-src 'none'; script-src ${origin}; connect-src ${origin}; img-src ${origin}; frame-src ${origin}`;

const page = (title: string, body: string, styled = true) => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${title}</title>
${styled ? `<style>body{font:17px/1.6 Georgia,serif;max-width:760px;margin:0 auto;padding:24px;color:#222;background:#fff}h1{font-size:30px;margin:0 0 4px}h2{font-size:20px;margin:34px 0 8px}.from{color:#666;margin:0 0 24px}nav a{margin-right:16px}</style>` : ''}</head>
<body><nav><a href="/">Front</a><a href="/forms">Every form</a><a href="/elements">Elements</a><a href="/list">A list</a></nav><h1>${title}</h1><p class="from">The Weir Gazette, a website of somebody else</p>${body}</body></html>`;

/** `origin` is where Ianua stands. */
export function startOutsideSite(port: number, origin: string): Promise<{ stop: () => void }> {
	const guide = { origin, slug: 'cruising-guide', title: 'Cruising guide', shape: { width: 148, height: 210 } };
	const pages: Record<string, () => string> = {
		'/': () =>
			page(
				'Boats are back on the upper flight',
				`<p>The society has put out its guide for the season. It can be read here.</p>${frameCode(guide, defaultsOf('frame'))}<p>Or ${linkCode(guide, 'on its own site')}.</p>`
			),
		'/forms': () =>
			page(
				'Every form',
				`<h2>Reading frame</h2>${frameCode(guide, { ...defaultsOf('frame'), width: 640 })}<h2>Cover</h2>${coverCode(guide, 300)}<h2>Link</h2><p>${linkCode(guide, 'The cruising guide')}, ${linkCode(guide, 'to save', true)}</p>`
			),
		'/list': () =>
			page(
				'From the society’s shelves',
				`<script src="${origin}/ianua-document.js" async></script><ianua-list src="${origin}" folder="Guides" show="covers" press="over"><a href="${origin}/library">Library</a></ianua-list>`,
				false
			),
		'/elements': () => page('Elements', forms.map((form) => `<h2>${form}</h2>${elementCode(guide, form, 'page')}`).join(''))
	};
	const server = createServer((request, response) => {
		const { pathname } = new URL(request.url ?? '/', 'http://x');
		const made = pages[pathname];
		const policy = pathname === '/list' ? { 'content-security-policy': strict(origin) } : {};
		response.writeHead(made ? 200 : 404, { 'content-type': 'text/html; charset=utf-8', ...policy }).end(made ? made() : page('Nothing here', ''));
	});
	return new Promise((up) => server.listen(port, '127.0.0.1', () => up({ stop: () => void server.close() })));
}
