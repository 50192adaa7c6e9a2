// The reading room beside a bare pdf.js page with its default settings: same files, same shaped network, same run. The files are long
// ones of Debian's documentation packages, fetched with apt-get once, or those in the folder that IANUA_BENCH_PDFS names.
import { execFileSync } from 'node:child_process';
import { createReadStream, existsSync, mkdirSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium, type Browser, type CDPSession, type Page } from 'playwright';
import { chromiumOptions } from './chromium';
import { freePort } from '#server/db/cluster';
import type { Running } from './run';
import { prepareSamples, samples } from './samples';

const packages: Record<string, readonly string[]> = {
	'lilypond-doc-pdf': ['notation', 'snippets', 'learning', 'internals'].map((name) => `usr/share/doc/lilypond/html/Documentation/${name}.pdf`),
	'c++-annotations-pdf': ['usr/share/doc/c++-annotations/cplusplus.pdf'],
	'r-doc-pdf': ['usr/share/R/doc/manual/fullrefman.pdf']
};

function longFiles(): string[] {
	const named = process.env.IANUA_BENCH_PDFS;
	if (named)
		return readdirSync(named)
			.filter((name) => name.endsWith('.pdf'))
			.map((name) => join(named, name));
	const folder = join(tmpdir(), 'ianua-bench-pdfs');
	mkdirSync(folder, { recursive: true });
	return Object.entries(packages).flatMap(([name, files]) => {
		if (!files.every((file) => existsSync(join(folder, file)))) {
			execFileSync('apt-get', ['download', name], { cwd: folder, stdio: 'ignore' });
			const deb = readdirSync(folder).find((file) => file.startsWith(`${name}_`))!;
			execFileSync('dpkg', ['-x', deb, '.'], { cwd: folder });
		}
		return files.map((file) => join(folder, file));
	});
}

const mime: Record<string, string> = { html: 'text/html', mjs: 'text/javascript', pdf: 'application/pdf' };

/** The bare page: pdf.js as it comes draws page 1 as large as the room does, on a canvas. */
const barePage = (file: string) => `<!doctype html><meta charset="utf-8"><title>bare</title><body style="margin:0"><canvas></canvas><script type="module">
import * as pdfjs from '/pdf.min.mjs';
pdfjs.GlobalWorkerOptions.workerSrc = '/pdf.worker.min.mjs';
const pdf = await pdfjs.getDocument('/files/${file}').promise;
const page = await pdf.getPage(1);
const box = page.getViewport({ scale: 1 });
const viewport = page.getViewport({ scale: 707 / box.height });
const canvas = document.querySelector('canvas');
[canvas.width, canvas.height] = [viewport.width, viewport.height];
await page.render({ canvas, viewport }).promise;
requestAnimationFrame(() => window.told('sharp'));
</script>`;

async function bareServer(files: readonly string[]): Promise<{ origin: string; worker: number; stop: () => void }> {
	const port = await freePort();
	const zipped = new Map(
		['pdf.min.mjs', 'pdf.worker.min.mjs'].map((name) => [`/${name}`, gzipSync(readFileSync(join('node_modules/pdfjs-dist/build', name)))])
	);
	const server = createServer((request, response) => {
		const { pathname } = new URL(request.url!, 'http://localhost');
		const code = zipped.get(pathname);
		if (code) return void response.writeHead(200, { 'content-type': mime.mjs!, 'content-encoding': 'gzip' }).end(code);
		const file = files.find((f) => basename(f) === pathname.split('/').pop());
		if (pathname.startsWith('/read/') && file) return void response.writeHead(200, { 'content-type': mime.html! }).end(barePage(basename(file)));
		if (!file) return void response.writeHead(404).end();
		const size = statSync(file).size;
		const range = /bytes=(\d+)-(\d*)/.exec(request.headers.range ?? '');
		const [first, last] = range ? [Number(range[1]), range[2] ? Number(range[2]) : size - 1] : [0, size - 1];
		response.writeHead(range ? 206 : 200, {
			'content-type': mime.pdf!,
			'accept-ranges': 'bytes',
			'content-length': last - first + 1,
			...(range ? { 'content-range': `bytes ${first}-${last}/${size}` } : {})
		});
		createReadStream(file, { start: first, end: last })
			.on('error', () => response.destroy())
			.pipe(response);
	});
	await new Promise<void>((up) => server.listen(port, '127.0.0.1', up));
	return { origin: `http://127.0.0.1:${port}`, worker: zipped.get('/pdf.worker.min.mjs')!.length, stop: () => server.close() };
}

interface Seen {
	/** ms since the navigation began. */
	readonly at: number;
	readonly bytes: number;
}

interface Visit {
	readonly page: Page;
	readonly devtools: CDPSession;
	readonly marks: Map<string, Seen>;
	readonly code: Map<string, number>;
	close: () => Promise<void>;
}

/** A word of every manual, that stands on few of its pages. */
const soughtWord = 'introduction';

/** In the page: tells when the stand-in is seen, and when the page itself is drawn. A text, so that nothing of the compiler's gets into it. */
const watching = `(() => {
	if (!location.pathname.startsWith('/d/')) return;
	const look = () => {
		const image = document.querySelector('.standin img');
		if (image?.complete && image.naturalWidth && image.getBoundingClientRect().height > 100) {
			window.told('seen');
			// as many pixels as it is wide on the screen, but for three in a hundred
			if (Number(/[?&]w=(\\d+)/.exec(image.currentSrc)?.[1]) >= 0.97 * image.getBoundingClientRect().width * devicePixelRatio) window.told('clear');
		}
		if (document.querySelector('.standin.gone') && document.querySelector('.pdfViewer .page canvas')) {
			window.told('seen');
			window.told('clear');
			window.told('sharp');
		} else requestAnimationFrame(look);
	};
	requestAnimationFrame(look);
})()`;

/** In the page: scrolls through 200 pages, a sixth of one at each frame; gives the times between frames, ms. */
const scrolling = `(async () => {
	const stage = document.querySelector('.stage');
	const height = document.querySelector('.page').getBoundingClientRect().height + 14;
	const times = [];
	let last = performance.now();
	await new Promise((done) => {
		const step = (now) => {
			times.push(now - last);
			last = now;
			stage.scrollTop += height / 6;
			if (stage.scrollTop < height * 200) requestAnimationFrame(step);
			else done();
		};
		requestAnimationFrame(step);
	});
	return times.slice(1);
})()`;

/** A line as it is shaped: there and back in ms, and bits a second each way. */
interface Line {
	readonly latency: number;
	readonly bits: number;
}
const usual: Line = { latency: 80, bits: 5_000_000 };
const slow: Line = { latency: 400, bits: 400_000 };

/** Opens an address with nothing known of it yet, and notes when something was told, with the bytes that had come by then. */
async function visit(browser: Browser, address: string, until: string, line: Line | null, worker: number): Promise<Visit> {
	const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
	const page = await context.newPage();
	const devtools = await context.newCDPSession(page);
	await devtools.send('Network.enable');
	if (line)
		await devtools.send('Network.emulateNetworkConditions', {
			offline: false,
			latency: line.latency,
			downloadThroughput: line.bits / 8,
			uploadThroughput: line.bits / 8
		});
	let bytes = 0;
	const code = new Map<string, number>();
	const scripts = new Map<string, string>();
	devtools.on('Network.responseReceived', ({ requestId, response }) => {
		bytes += response.encodedDataLength;
		if (/\.m?js$/.test(new URL(response.url).pathname)) scripts.set(requestId, response.url);
	});
	devtools.on('Network.dataReceived', ({ encodedDataLength }) => (bytes += encodedDataLength));
	devtools.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
		const url = scripts.get(requestId);
		if (url) code.set(url, encodedDataLength);
	});
	// the worker's script is fetched where these events do not reach
	page.on('worker', () => (bytes += worker));
	const marks = new Map<string, Seen>();
	const began = performance.now();
	let done = () => {};
	const reached = new Promise<void>((go) => (done = go));
	await page.exposeFunction('told', (mark: string) => {
		if (!marks.has(mark)) marks.set(mark, { at: performance.now() - began, bytes });
		if (mark === until) done();
	});
	await page.addInitScript({ content: watching });
	const start = performance.now() - began;
	await page.goto(address, { waitUntil: 'commit' });
	await Promise.race([reached, new Promise((_, stop) => setTimeout(() => stop(new Error(`${address}: nothing after 120 s`)), 120_000).unref())]);
	for (const [mark, seen] of marks) marks.set(mark, { ...seen, at: seen.at - start });
	return { page, devtools, marks, code, close: () => context.close() };
}

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const kB = (bytes: number) => `${(bytes / 1000).toFixed(0)} kB`;

/** Memory of Chromium's renderers, MB: what is theirs alone. */
function renderers(): number {
	let all = 0;
	for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
		try {
			if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('--type=renderer')) continue;
			const rollup = readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8');
			all = Math.max(all, [...rollup.matchAll(/^Private_\w+: +(\d+) kB/gm)].reduce((sum, m) => sum + Number(m[1]), 0) / 1024);
		} catch {
			// it has ended meanwhile
		}
	}
	return all;
}

async function bringIn(running: Running, staff: string, file: string): Promise<{ slug: string; pages: number }> {
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(readFileSync(file))]), basename(file));
	const made = (await (await fetch(`${running.origin}/api/v1/documents`, { method: 'POST', headers: { cookie: staff }, body: form })).json()) as {
		slug: string;
	};
	const address = `${running.origin}/api/v1/documents/${made.slug}`;
	for (let waited = 0; ; waited++) {
		const { condition, pages } = (await (await fetch(address, { headers: { cookie: staff } })).json()) as { condition: { status: string }; pages: number };
		if (condition.status === 'sound' || condition.status === 'look') {
			await fetch(address, {
				method: 'PATCH',
				headers: { cookie: staff, 'content-type': 'application/json' },
				body: JSON.stringify({ door: { position: 'open' } })
			});
			return { slug: made.slug, pages };
		}
		if (waited > 240) throw new Error(`${file} was not sound after two minutes`);
		await new Promise((go) => setTimeout(go, 500));
	}
}

/** From the words of a find being typed until no more places come to light, ms; with the server's word on where they stand, or without it. */
async function findTimes(browser: Browser, running: Running, slug: string, worker: number, told: boolean): Promise<{ known: number; places: number }> {
	const { page, close } = await visit(browser, `${running.origin}/d/${slug}/read`, 'sharp', usual, worker);
	if (!told) await page.route(/\/read\/found\?/, (route) => route.abort());
	await page.keyboard.press('/');
	const dialog = page.getByRole('dialog');
	await dialog.getByRole('searchbox').fill(soughtWord);
	const began = performance.now();
	let [known, places] = [0, 0];
	for (;;) {
		const said = await dialog.locator('.count').innerText();
		const now = Number(/([\d,]+) times?/.exec(said)?.[1]?.replace(',', '') ?? 0);
		if (now > places) [known, places] = [performance.now() - began, now];
		// the other pages go on being looked through
		if (!/ of [\d,]+ pages/.test(said) && /times?|Not found/.test(said)) break;
		if (performance.now() - began > 300_000) throw new Error(`the find was not ended after five minutes: ${said}`);
		await new Promise((go) => setTimeout(go, 50));
	}
	await close();
	return { known, places };
}

/** A file read three times in the bare page and in a room, on a line or on none that is shaped; turn about, so that a noisy neighbour meets both. */
async function turnAbout(browser: Browser, line: Line | null, bare: { origin: string; worker: number }, room: string, worker: number, file: string) {
	const [ours, bares]: [Visit[], Visit[]] = [[], []];
	for (let round = 0; round < 3; round++)
		for (const [visits, address, its] of [
			[bares, `${bare.origin}/read/${basename(file)}`, bare.worker],
			[ours, room, worker]
		] as const) {
			const visited = await visit(browser, address, 'sharp', line, its);
			visits.push(visited);
			await visited.close();
		}
	return { ours: ours.map(({ marks }) => marks), bares: bares.map(({ marks }) => marks), code: ours.at(-1)!.code };
}

/** A file on a slow line, beside the bare page: when its first page is seen, has a pixel for each of the screen's, and is drawn. */
async function slowLine(
	browser: Browser,
	bare: { origin: string; worker: number },
	running: Running,
	staff: string,
	worker: number,
	file: string
): Promise<void> {
	const { slug } = await bringIn(running, staff, file);
	const { ours, bares } = await turnAbout(browser, slow, bare, `${running.origin}/d/${slug}/read`, worker, file);
	const at = (visits: Visit['marks'][], mark: string) => median(visits.map((v) => v.get(mark)!.at));
	const bytes = (visits: Visit['marks'][], mark: string) => kB(median(visits.map((v) => v.get(mark)!.bytes)));
	const whole = at(bares, 'sharp');
	console.log(
		`${basename(file)} (${(statSync(file).size / 1e6).toFixed(1)} MB) at 400 kbit/s and 400 ms: bare sharp after ${whole.toFixed(0)} ms and ${bytes(bares, 'sharp')}; ours, of that time: ${(['seen', 'clear', 'sharp'] as const).map((mark) => `${mark} ${(at(ours, mark) / whole).toFixed(2)} (${at(ours, mark).toFixed(0)} ms, ${bytes(ours, mark)})`).join(', ')}`
	);
}

export async function benchReading(running: Running, staff: string): Promise<void> {
	const files = longFiles();
	const built = 'build/client/_app/immutable/workers';
	const worker = statSync(
		join(
			built,
			readdirSync(built).find((name) => /^pdf\.worker.*\.gz$/.test(name))!
		)
	).size;
	await prepareSamples();
	// half a megabyte, and one that is signed and read as it is
	const onSlow = [samples.japanese, samples.signed];
	const bare = await bareServer([...files, ...onSlow]);
	const browser = await chromium.launch(chromiumOptions);
	const [first, sharp, seenBytes, sharpBytes, sharpNear]: [number[], number[], number[], number[], number[]] = [[], [], [], [], []];
	const documents: { slug: string; pages: number; file: string }[] = [];
	try {
		for (const file of onSlow) await slowLine(browser, bare, running, staff, worker, file);
		let code: Visit['code'] | undefined;
		for (const file of files) {
			const { slug, pages } = await bringIn(running, staff, file);
			documents.push({ slug, pages, file });
			const onLine = (line: Line | null) => turnAbout(browser, line, bare, `${running.origin}/d/${slug}/read`, worker, file);
			const { ours, bares, code: loaded } = await onLine(usual);
			code = loaded;
			const unshaped = await onLine(null);
			const medianOf = (visits: Visit['marks'][], mark: string, what: keyof Seen) => median(visits.map((v) => v.get(mark)![what]));
			const [bareAt, bareBytes] = [medianOf(bares, 'sharp', 'at'), medianOf(bares, 'sharp', 'bytes')];
			first.push(medianOf(ours, 'seen', 'at') / bareAt);
			sharp.push(medianOf(ours, 'sharp', 'at') / bareAt);
			const [bareNear, near] = [medianOf(unshaped.bares, 'sharp', 'at'), medianOf(unshaped.ours, 'sharp', 'at')];
			sharpNear.push(near / bareNear);
			seenBytes.push(medianOf(ours, 'seen', 'bytes'));
			sharpBytes.push(medianOf(ours, 'sharp', 'bytes') / bareBytes);
			console.log(
				`${basename(file)} (${(statSync(file).size / 1e6).toFixed(1)} MB, ${pages} pages): bare sharp after ${bareAt.toFixed(0)} ms and ${kB(bareBytes)}; ours seen after ${medianOf(ours, 'seen', 'at').toFixed(0)} ms and ${kB(medianOf(ours, 'seen', 'bytes'))}, sharp after ${medianOf(ours, 'sharp', 'at').toFixed(0)} ms and ${kB(medianOf(ours, 'sharp', 'bytes'))}; on no shaped line bare ${bareNear.toFixed(0)} ms, ours ${near.toFixed(0)} ms`
			);
		}
		console.log(
			`first page seen, of the bare page's time: ${first.map((r) => r.toFixed(2)).join(', ')}; bytes until then at most ${kB(Math.max(...seenBytes))}; sharp, of its time: ${sharp.map((r) => r.toFixed(2)).join(', ')}, on no shaped line ${sharpNear.map((r) => r.toFixed(2)).join(', ')}; bytes until sharp, of its bytes: median ${median(sharpBytes).toFixed(2)} (${sharpBytes.map((r) => r.toFixed(2)).join(', ')})`
		);
		const all = [...code!.entries()];
		const library = all.filter(([, bytes]) => bytes > 40_000).reduce((sum, [, bytes]) => sum + bytes, 0);
		const whole = all.reduce((sum, [, bytes]) => sum + bytes, 0);
		console.log(
			`code of the room, gzip: ${kB(whole + worker)} in all, the worker of pdf.js ${kB(worker)} among it, ${kB(whole - library)} without pdf.js (${all.map(([url, b]) => `${basename(url)} ${kB(b)}`).join(', ')})`
		);

		const long = documents.reduce((a, b) => (b.pages > a.pages ? b : a));
		const told = await findTimes(browser, running, long.slug, worker, true);
		const untold = await findTimes(browser, running, long.slug, worker, false);
		console.log(
			`${basename(long.file)}, a find at 5 Mbit/s: all ${told.places} places known after ${told.known.toFixed(0)} ms; where the server does not say on which pages, ${untold.places} after ${untold.known.toFixed(0)} ms: ${(untold.known / told.known).toFixed(1)} times as long`
		);

		// the middle page, and scrolling, unshaped
		for (const { slug, pages, file } of documents) {
			const { page, close } = await visit(browser, `${running.origin}/d/${slug}/read`, 'sharp', null, worker);
			const middle = Math.ceil(pages / 2);
			const field = page.getByRole('textbox', { name: 'Page' });
			await field.fill(String(middle));
			const started = performance.now();
			await field.press('Enter');
			await page.locator(`.page[data-page-number="${middle}"] canvas`).waitFor();
			await page.waitForFunction((n) => document.querySelector(`.page[data-page-number="${n}"]`)?.getAttribute('data-loaded') === 'true', middle);
			console.log(`${basename(file)}: page ${middle} after ${(performance.now() - started).toFixed(0)} ms`);
			await close();
		}
		const { page, close } = await visit(browser, `${running.origin}/d/${long.slug}/read`, 'sharp', null, worker);
		const frames = await page.evaluate<number[]>(scrolling);
		const highest = renderers();
		await page.waitForTimeout(8000);
		console.log(
			`${basename(long.file)}, 200 pages scrolled in ${frames.length} frames: the longest ${Math.max(...frames).toFixed(0)} ms, 99 % within ${[...frames].sort((a, b) => a - b)[Math.ceil(frames.length * 0.99) - 1]!.toFixed(0)} ms; memory of the renderer ${highest.toFixed(0)} MB at the end, ${renderers().toFixed(0)} MB 8 s later`
		);
		await close();
	} finally {
		await browser.close();
		bare.stop();
	}
}
