// What lucide-static's JSON holds, which TypeScript would spell out icon by icon.
declare module 'lucide-static/icon-nodes.json' {
	const nodes: Record<string, [tag: string, attributes: Record<string, string>][]>;
	export default nodes;
}
declare module 'lucide-static/tags.json' {
	const tags: Record<string, string[]>;
	export default tags;
}
