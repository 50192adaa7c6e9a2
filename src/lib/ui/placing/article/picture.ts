// Pictures in the article editor: the node, and the placement that one becomes which leads to a document.
import { Node } from '@tiptap/core';
import { mount, unmount } from 'svelte';
import { SvelteMap } from 'svelte/reactivity';
import type { PictureAttrs } from '#core/placing/content';
import type { Press } from '#core/placing/placement';
import FigureDrawn from '../FigureDrawn.svelte';
import { freshPlacement, keptTogether, plain } from './nodes';

/** Pictures that the site keeps. */
export const pictureType = /^image\/(png|jpeg|webp)$/;

/** What the editor keeps of a picture; null where nothing is said. */
const pictureAttrs = [
	'picture',
	'alt',
	'width',
	'height',
	'angle',
	'upright',
	'shown',
	'align',
	'caption',
	'href'
] as const satisfies readonly (keyof PictureAttrs)[];

export const PictureNode = Node.create({
	name: 'picture',
	group: 'block',
	atom: true,
	draggable: true,
	addAttributes: () => keptTogether(pictureAttrs, 'picture'),
	parseHTML() {
		return [{ tag: 'figure[data-picture]' }];
	},
	renderHTML({ node }) {
		return ['figure', { 'data-picture': JSON.stringify(plain(node.attrs)) }];
	},
	addNodeView() {
		return ({ node }) => {
			const dom = document.createElement('div');
			dom.className = 'picture';
			const props = new SvelteMap<'attrs', PictureAttrs>();
			const show = (attrs: Record<string, unknown>) => {
				// it stands beside words by its own measures, as readers will see it
				const picture = plain(attrs) as PictureAttrs;
				dom.dataset.align = picture.align ?? '';
				props.set('attrs', picture);
			};
			show(node.attrs);
			const drawn = mount(FigureDrawn, { target: dom, props: { props } });
			dom.addEventListener('click', (event) => event.preventDefault());
			return {
				dom,
				update: (next) => {
					if (next.type.name !== 'picture') return false;
					show(next.attrs);
					return true;
				},
				ignoreMutation: () => true,
				destroy: () => void unmount(drawn)
			};
		};
	}
});

/** The attributes of the placement that a picture becomes: as wide, where it was, with its words below. */
export const placementOf = ({ picture, alt, caption, width, shown, align }: PictureAttrs, document: string, press: Press) => ({
	id: freshPlacement(),
	document,
	form: 'cover',
	press,
	picture,
	alt: alt ?? null,
	words: caption ?? null,
	caption: caption !== undefined,
	border: false,
	facts: [],
	width: shown ?? Math.min(2400, Math.max(60, width ?? 700)),
	align: align === 'wide' ? 'centre' : (align ?? 'centre')
});
