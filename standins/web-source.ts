// Another website that offers a PDF: for trying and testing what is fetched from the web and watched.
// GET /conditions.pdf gives it, with ETag and Last-Modified; PUT sends another one; DELETE takes it away; /far leads on to it, ?to= anywhere.
import { createHash } from 'node:crypto';
import { createServer, type Server } from 'node:http';

export function startWebSource(port: number, first: Buffer): Promise<{ server: Server; stop: () => void }> {
	let bytes: Buffer | null = first;
	let changed = new Date();
	const server = createServer((request, response) => {
		if (request.url === '/far') return response.writeHead(302, { location: '/conditions.pdf' }).end();
		if (request.url === '/round') return response.writeHead(302, { location: '/round' }).end();
		const away = new URL(request.url ?? '/', 'http://x').searchParams.get('to');
		if (away) return response.writeHead(302, { location: away }).end();
		if (request.url !== '/conditions.pdf') return response.writeHead(404).end();
		if (request.method === 'DELETE') {
			bytes = null;
			return response.writeHead(204).end();
		}
		if (request.method === 'PUT') {
			const chunks: Buffer[] = [];
			request.on('data', (chunk: Buffer) => chunks.push(chunk));
			request.on('end', () => {
				bytes = Buffer.concat(chunks);
				changed = new Date();
				response.writeHead(204).end();
			});
			return;
		}
		if (!bytes) return response.writeHead(404).end();
		const etag = `"${createHash('sha256').update(bytes).digest('hex').slice(0, 16)}"`;
		if (request.headers['if-none-match'] === etag) return response.writeHead(304, { etag }).end();
		response.writeHead(200, { 'content-type': 'application/pdf', 'content-length': bytes.length, etag, 'last-modified': changed.toUTCString() });
		response.end(request.method === 'HEAD' ? undefined : bytes);
	});
	return new Promise((up) => server.listen(port, '127.0.0.1', () => up({ server, stop: () => void server.close() })));
}
