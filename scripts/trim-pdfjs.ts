// Leaves out of pdf.js, at build time, what the reading room never runs: the editors of annotations, forms in XFA, its own translations,
// history and scripting; and of its stylesheet, all but the layers that lie over a page. Every reader loads a quarter less for it. Its files
// say where each of their sections begins.
import postcss from 'postcss';
import type { Plugin } from 'vite';

interface Cut {
	/** Sections that are left out. */
	readonly sections: RegExp;
	/** Names of theirs that the rest mentions: they stay as empty classes, so that mentioning them is no error. */
	readonly stubs: readonly string[];
	/** Functions of the file's own that the room needs too. */
	readonly gives?: readonly string[];
}

const cuts: Readonly<Record<string, Cut>> = {
	'build/pdf.mjs': {
		sections: /^\.\/src\/display\/(?:editor\/|draw_layer|xfa_layer|touch_manager)/,
		stubs: [
			'XfaLayer',
			'AnnotationEditorUIManager',
			'TouchManager',
			'AnnotationEditor',
			'HighlightOutliner',
			'ColorPicker',
			'SignatureExtractor',
			'AnnotationEditorLayer',
			'DrawLayer'
		]
	},
	'web/pdf_viewer.mjs': {
		sections:
			/^\.\/(?:node_modules\/@fluent\/|web\/(?:base_download_manager|download_manager|l10n|genericl10n|pdf_history|annotation_editor_layer_builder|autolinker|draw_layer_builder|xfa_layer_builder|generic_scripting|pdf_scripting_manager))/,
		stubs: [
			'DownloadManager',
			'GenericL10n',
			'genericl10n_GenericL10n',
			'PDFHistory',
			'AnnotationEditorLayerBuilder',
			'Autolinker',
			'DrawLayerBuilder',
			'XfaLayerBuilder',
			'PDFScriptingManager',
			'PDFScriptingManagerComponents'
		],
		gives: ['normalize']
	},
	'build/pdf.worker.mjs': { sections: /^\.\/src\/core\/xfa\//, stubs: ['XFAFactory'] }
};

/** A file of pdf.js without its cut sections. Throws where a stub is no longer among them: then a new version has to be looked at. */
export function trimmed(code: string, { sections, stubs, gives = [] }: Cut): string {
	const parts = code.split(/^;\/\/ (\.\/\S+)\n/m);
	let [kept, out] = [parts[0]!, ''];
	for (let i = 1; i < parts.length; i += 2) {
		const [name, body] = [parts[i]!, parts[i + 1]!];
		if (sections.test(name)) out += body;
		else kept += `;// ${name}\n${body}`;
	}
	const stands = (name: string, where: string) => new RegExp(`^(?:class|const|function) ${name}\\b`, 'm').test(where);
	const missing = [...stubs.filter((name) => !stands(name, out)), ...gives.filter((name) => !stands(name, kept))];
	if (missing.length) throw new Error(`pdf.js has changed: ${missing.join(', ')} not found where they were`);
	// in front of all: a section that stays may mention them while the module starts
	return [...stubs.map((name) => `class ${name} {}`), kept, ...gives.map((name) => `export { ${name} };`)].join('\n');
}

/** Rules for the layers over a page, without what their editors need, and without names that Chromium does not know. */
const ofLayers = (selector: string) =>
	selector.split(/,(?![^(]*\))/).every((part) => /\.(?:textLayer|annotationLayer)(?![\w-])/.test(part)) &&
	!/editor|comment|highlighting|-moz-|textLayerImages/i.test(selector);

/** The stylesheet of pdf.js without all but those rules. Throws where there are none of them: then a new version has to be looked at. */
export function layersOnly(css: string): string {
	const sheet = postcss.parse(css);
	sheet.walkComments((comment) => void comment.remove());
	sheet.walkRules((rule) => {
		// a rule in another goes with it
		if (rule.parent?.type !== 'rule' && !ofLayers(rule.selector)) rule.remove();
	});
	sheet.walkAtRules((rule) => {
		if (!rule.nodes?.length) rule.remove();
	});
	for (const layer of ['.textLayer', '.annotationLayer', '.textLayer .highlight'])
		if (!sheet.nodes.some((rule) => rule.type === 'rule' && rule.selector === layer))
			throw new Error(`pdf.js has changed: no rule for ${layer} in its stylesheet`);
	return sheet.toString();
}

export function trimPdfjs(): Plugin {
	return {
		name: 'trim-pdfjs',
		enforce: 'pre',
		transform(code, id) {
			// `?worker&url` is only the worker's address; its code comes by itself
			if (/[?&]url\b/.test(id)) return null;
			if (/pdfjs-dist\/web\/pdf_viewer\.css$/.test(id)) return { code: layersOnly(code), map: null };
			const file = /pdfjs-dist\/((?:build|web)\/[\w.]+)(?:\?.*)?$/.exec(id)?.[1];
			const cut = file && cuts[file];
			return cut ? { code: trimmed(code, cut), map: null } : null;
		}
	};
}
