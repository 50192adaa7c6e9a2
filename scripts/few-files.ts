// What a browser fetches before a screen works, at build time: nothing that is made at a module's start and used by nobody, and few files.
import { createHash } from 'node:crypto';
import { statSync } from 'node:fs';
import { dirname, relative } from 'node:path';
import type { Plugin } from 'vite';

/** What is known of a module while files are made of them. */
interface Known {
	readonly importers: readonly string[];
	readonly dynamicImporters: readonly string[];
	readonly importedIds: readonly string[];
}
type Graph = (id: string) => Known | null;

const route = /\/src\/routes\/.*\+(?:page|layout|error)(?:@[^/]*)?\.svelte$/;
const routes = `${process.cwd()}/src/routes`;

/**
 * From where a module is reached: route files (`desk/+layout.svelte`), what is fetched when it is needed, and 'start' for what every page
 * begins with.
 */
function origins(id: string, graph: Graph, known: Map<string, Set<string>>): Set<string> {
	const before = known.get(id);
	if (before) return before;
	const found = new Set<string>();
	// modules that import each other: all of a walk, none remembered but the one that was asked for
	const walk = [id];
	const met = new Set(walk);
	for (let at = walk.pop(); at !== undefined; at = walk.pop()) {
		const module = graph(at);
		if (route.test(at)) {
			found.add(relative(routes, at));
			continue;
		}
		if (!module?.importers.length && !module?.dynamicImporters.length) found.add('start');
		if (module?.dynamicImporters.length) found.add(at);
		for (const importer of module?.importers ?? []) {
			if (met.has(importer)) continue;
			met.add(importer);
			walk.push(importer);
		}
	}
	known.set(id, found);
	return found;
}

/** Without what is never there without another of them: a page without its layouts. */
function leading(all: ReadonlySet<string>): string[] {
	if (all.has('start') || all.has('+layout.svelte')) return ['start'];
	const layouts = [...all].filter((file) => file.endsWith('+layout.svelte'));
	return [...all].filter((file) => !layouts.some((layout) => layout !== file && file.startsWith(`${dirname(layout)}/`))).sort();
}

/** Parts that stand behind an index of all there are, so that it cannot be told by whom they are asked for: those of readers' pages too, and the desk's. */
const look =
	/\/tailwind-(?:variants|merge)\/|\/flowbite-svelte\/dist\/(?:buttons|context|forms\/(?:input-field|label)|spinner|theme\/themeUtils|toolbar|utils\/(?:theme|CloseButton|dismissable))|\/parts\/controls\/(?:Button|Input)\.svelte/;
const ofDesk =
	/\/flowbite-svelte\/dist\/(?:dialog|drawer|dropdown|forms|modal|pagination|progress|table|toast|utils\/)|\/@floating-ui\/|\/parts\/controls\/(?!Calendar)\w+\.svelte/;

/** What is so little, with all that it needs, that it comes along with what is there anyhow: not worth a request of its own. Bytes of source. */
const little = 4_500;
function comesAlong(id: string, file: string, name: (id: string) => string | null, graph: Graph): boolean {
	if (!/\/(?:core|src)\/.*\.(?:ts|svelte)$/.test(id) || statSync(id).size > little) return false;
	return (graph(id)?.importedIds ?? []).every((needed) => {
		const its = name(needed);
		return its === 'start' || its === 'look' || its === file || comesAlong(needed, file, name, graph);
	});
}

/**
 * The file that a module goes into: one with all that is there whenever it is there, so that nobody fetches what they do not need; what
 * is little comes along with what every page, or every screen of the desk, begins with.
 */
function fileOf(id: string, graph: Graph, known: Map<string, Set<string>>): string | null {
	// what knows all pages stays by itself: kit takes what it leads to for what is fetched later, styles among it
	if (id.includes('/generated/')) return null;
	// the styles of the site and of the desk, by their names
	const [, styles] = /\/src\/lib\/ui\/(\w+)\.css$/.exec(id) ?? [];
	if (styles) return styles;
	if (look.test(id)) return 'look';
	if (ofDesk.test(id)) return 'desk';
	const from = leading(origins(id, graph, known));
	// what words a page that went wrong is fetched with every page
	if (from[0] === 'start' || /\/(?:svelte|@sveltejs\/kit)\/src\//.test(id) || (from.includes('+error.svelte') && id.endsWith('.ts'))) return 'start';
	const name = (of: string) => fileOf(of, graph, known);
	if (id.endsWith('.ts') && from.length > 3 && comesAlong(id, 'start', name, graph)) return 'start';
	if (id.includes('/node_modules/')) return null;
	if (from.length < 2) return from[0]?.endsWith('+layout.svelte') ? dirname(from[0]).replace(/\W+/g, '-') : null;
	if (from.every((file) => file.startsWith('desk/')) && (from.length > 8 || comesAlong(id, 'desk', name, graph))) return 'desk';
	return `shared-${createHash('sha256').update(from.join(' ')).digest('hex').slice(0, 8)}`;
}

export function fewFiles(): Plugin {
	return {
		name: 'few-files',
		// their looks are made at a module's start: of those that nobody uses nothing stays
		transform: { filter: { id: /\/flowbite-svelte\/dist\/.*\.js$|\/parts\/controls\/index\.ts$/ }, handler: () => ({ moduleSideEffects: false }) },
		config: {
			order: 'post',
			handler: ({ build }) => {
				if (build?.ssr) return {};
				const known = new Map<string, Set<string>>();
				return {
					build: {
						rolldownOptions: {
							preserveEntrySignatures: 'allow-extension',
							treeshake: { propertyReadSideEffects: false, manualPureFunctions: ['tv', 'Type', 'nullable', 'oneOf', 'Line', 'shapeOfDefaults'] },
							output: {
								codeSplitting: {
									includeDependenciesRecursively: false,
									groups: [{ name: (id, modules) => fileOf(id, (of) => modules.getModuleInfo(of), known) }]
								}
							}
						}
					}
				};
			}
		}
	};
}
