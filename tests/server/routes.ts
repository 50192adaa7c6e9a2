// The route tree as it stands in the sources, for tests that walk all of it: what is new stands here at once.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

export interface Route {
	/** As the framework names it, and as server/guard/table does. */
	readonly id: string;
	/** Names of its form actions. */
	readonly actions: readonly string[];
	/** Methods that its own handler takes. */
	readonly methods: readonly string[];
}

/** Every route that answers: a page or a handler. */
export function routes(): Route[] {
	const found: Route[] = [];
	const walk = (dir: string, id: string) => {
		const entries = readdirSync(dir, { withFileTypes: true });
		const read = (name: string) => (entries.some((e) => e.name === name) ? readFileSync(join(dir, name), 'utf8') : '');
		const [load, handler] = [read('+page.server.ts'), read('+server.ts')];
		if (handler || entries.some((e) => /^\+page(@.*)?\.svelte$/.test(e.name)))
			found.push({
				id: id || '/',
				actions: load.includes('export const actions') ? [...load.slice(load.indexOf('export const actions')).matchAll(/^\t(\w+): /gm)].map((m) => m[1]!) : [],
				methods: ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS'].filter((m) => new RegExp(`export const (?:\\[[^\\]]*)?\\b${m}\\b`).test(handler))
			});
		for (const entry of entries) if (entry.isDirectory()) walk(join(dir, entry.name), `${id}/${entry.name}`);
	};
	walk('src/routes', '');
	return found;
}

/** Every load under a folder of the route tree, with the names by which it is loaded anew. */
export const loads = (folder: string): { readonly file: string; readonly names: readonly string[] }[] =>
	readdirSync(folder, { recursive: true, encoding: 'utf8' })
		.filter((file) => /\+(?:page|layout)\.server\.ts$/.test(file))
		.map((file) => ({ file, text: readFileSync(join(folder, file), 'utf8') }))
		.filter(({ text }) => text.includes('export const load'))
		.map(({ file, text }) => ({ file, names: [...text.matchAll(/depends\('ianua:([a-z]+)'\)/g)].map((m) => m[1]!) }));

/** The address of a route with its parameters filled in. */
export function addressOf(id: string, filled: Readonly<Record<string, string>>): string {
	const parts = id.split('/').filter((part) => part && !/^\(.*\)$/.test(part));
	return `/${parts
		.map((part) =>
			part.replace(/\[(?:\.\.\.)?(\w+)\]/g, (_, name: string) => {
				const value = filled[`${id} ${name}`] ?? filled[name];
				if (value === undefined) throw new Error(`no value for [${name}] of ${id}: add one, so that the route is tested`);
				return value;
			})
		)
		.join('/')}`;
}
