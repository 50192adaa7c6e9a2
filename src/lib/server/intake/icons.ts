// Icons for covers: Lucide's, found by their names and by the words that go with them; taken from its package at build.
type Node = [tag: string, attributes: Record<string, string>];
interface Icons {
	readonly nodes: Readonly<Record<string, Node[]>>;
	readonly tags: Readonly<Record<string, string[]>>;
}

let known: Promise<Icons> | undefined;

function icons(): Promise<Icons> {
	return (known ??= Promise.all([import('lucide-static/icon-nodes.json'), import('lucide-static/tags.json')]).then(([nodes, tags]) => ({
		nodes: nodes.default,
		tags: tags.default
	})));
}

const escaped = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

/** An icon's drawing as the inside of an SVG of 24 × 24; null where there is no such icon. */
export async function iconDrawing(name: string): Promise<string | null> {
	const nodes = (await icons()).nodes;
	const drawing = Object.hasOwn(nodes, name) ? nodes[name]! : null;
	return (
		drawing
			?.map(
				([tag, attributes]) =>
					`<${tag} ${Object.entries(attributes)
						.filter(([a]) => a !== 'key')
						.map(([a, value]) => `${a}="${escaped(value)}"`)
						.join(' ')}/>`
			)
			.join('') ?? null
	);
}

/** Icons whose name or words begin with `word`, those whose name does first. */
export async function iconsFor(word: string, limit: number): Promise<{ name: string; svg: string }[]> {
	const { nodes, tags } = await icons();
	const wanted = word.trim().toLowerCase();
	const rank = (name: string): number => {
		if (!wanted) return name.startsWith('file') ? 1 : 0;
		if (name === wanted) return 5;
		if (name.startsWith(wanted)) return 4;
		if (name.split('-').some((part) => part.startsWith(wanted))) return 3;
		const words = tags[name] ?? [];
		return words.includes(wanted) ? 2 : words.some((t) => t.startsWith(wanted)) ? 1 : 0;
	};
	const names = Object.keys(nodes)
		.map((name) => [rank(name), name] as const)
		.filter(([r]) => r > 0)
		.sort(([a, x], [b, y]) => b - a || (x < y ? -1 : 1))
		.slice(0, limit);
	return Promise.all(
		names.map(async ([, name]) => ({
			name,
			svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24" fill="none" stroke="#1f5f58" stroke-width="1.6" stroke-linecap="round" stroke-linejoin="round">${await iconDrawing(name)}</svg>`
		}))
	);
}
