// What a browser fetches before a screen works, at build time: nothing that is made at a module's start and used by nobody, and few files.
import { createHash } from 'node:crypto';
import { statSync } from 'node:fs';
import { dirname, relative } from 'node:path';
import type { Plugin } from 'vite';

/** What the bundler tells of a module. */
interface Module {
	readonly importers: readonly string[];
	readonly dynamicImporters: readonly string[];
	readonly importedIds: readonly string[];
}
type Graph = (id: string) => Module | null;

/** What was found while files are made of modules. */
interface Known {
	readonly origins: Map<string, Set<string>>;
	readonly files: Map<string, string | null>;
}

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
const ofAll =
	/\/tailwind-(?:variants|merge)\/|\/flowbite-svelte\/dist\/(?:buttons|context|forms\/(?:input-field|label)|spinner|theme\/themeUtils|toolbar|utils\/(?:theme|CloseButton|dismissable))|\/parts\/controls\/(?:Button|Input)\.svelte/;
const ofDesk =
	/\/flowbite-svelte\/dist\/(?:dialog|drawer|dropdown|forms|modal|pagination|progress|table|theme\/|toast|utils\/)|\/@floating-ui\/|\/parts\/controls\/(?!Calendar)\w+\.svelte/;

/** What words a page that went wrong. */
const wentWrong = '/ui/placing/TurnedAway.svelte';

/**
 * What is so little, with all that it needs, that it comes along with what every page, or every screen of the desk, begins with: not worth a
 * request of its own. Bytes of source; whoever works at the desk goes through many of its screens.
 */
const little = { start: 4_500, desk: 6_000 };
function comesAlong(id: string, file: keyof typeof little, name: (id: string) => string | null, graph: Graph, met = new Set<string>()): boolean {
	if (met.has(id)) return true;
	met.add(id);
	if (!/\/(?:core|src)\/.*\.(?:ts|svelte)$/.test(id) || statSync(id).size > little[file]) return false;
	return (graph(id)?.importedIds ?? []).every((needed) => {
		// its own styles; what schemas are made with, as no screen uses them; an index, as what stands behind it is the desk's
		if (needed.startsWith(`${id}?`) || needed.includes('/@sinclair/typebox/')) return true;
		if (file === 'desk' && /\/flowbite-svelte\/dist\/index\.js$|\/parts\/controls\/index\.ts$/.test(needed)) return true;
		const its = name(needed);
		return its === 'start' || its === 'look' || its === file || comesAlong(needed, file, name, graph, met);
	});
}

/** The one file from which a package's module is asked for, where there is only one: it goes with it. */
function askedFrom(id: string, name: (id: string) => string | null, graph: Graph): string | null {
	const files = new Set<string | null>();
	const met = new Set([id]);
	for (const at of met) {
		const module = graph(at);
		if (module?.dynamicImporters.length) return null;
		for (const importer of module?.importers ?? [])
			if (importer.includes('/node_modules/')) met.add(importer);
			else files.add(name(importer));
	}
	const [file = null, ...others] = files;
	return others.length ? null : file;
}

/**
 * The file that a module goes into: one with all that is there whenever it is there, so that nobody fetches what they do not need; what
 * is little comes along with what every page, or every screen of the desk, begins with.
 */
function fileOf(id: string, graph: Graph, known: Known): string | null {
	const before = known.files.get(id);
	if (before !== undefined) return before;
	// of modules that need each other, the one that is asked for again while it is looked at has none yet
	known.files.set(id, null);
	const file = fileByUse(id, graph, known);
	known.files.set(id, file);
	return file;
}

function fileByUse(id: string, graph: Graph, known: Known): string | null {
	const [component = id, styles] = id.split('?svelte&type=style');
	if (styles) return fileOf(component, graph, known);
	// what knows all pages stays by itself: kit takes what it leads to for what is fetched later, styles among it
	if (/\/generated\/|\/hooks\.client\.ts$/.test(id)) return null;
	// the styles of the site and of the desk, by their names
	const [, look] = /\/src\/lib\/ui\/(\w+)\.css$/.exec(id) ?? [];
	if (look) return look;
	if (ofAll.test(id)) return 'look';
	if (ofDesk.test(id)) return 'desk';
	const from = leading(origins(id, graph, known.origins));
	// what words a page that went wrong is fetched with every page
	if (from[0] === 'start' || /\/(?:svelte|@sveltejs\/kit)\/src\//.test(id) || (from.some((file) => file.endsWith(wentWrong)) && id.endsWith('.ts')))
		return 'start';
	const name = (of: string) => fileOf(of, graph, known);
	if (id.endsWith('.ts') && from.length > 3 && comesAlong(id, 'start', name, graph)) return 'start';
	if (id.includes('/node_modules/')) return askedFrom(id, name, graph);
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
				const known: Known = { origins: new Map(), files: new Map() };
				return {
					build: {
						rolldownOptions: {
							preserveEntrySignatures: 'allow-extension',
							treeshake: { propertyReadSideEffects: false, manualPureFunctions: ['tv', 'Type', 'nullable', 'oneOf', 'Line', 'shapeOfDefaults', 'blockNamed'] },
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
