// The turning leaf: a real one, drawn from the pages on both of its sides. Still where the reader asks for less motion.
import type { Viewer } from './viewer';
import { togetherWith } from '#core/reading/settings';

const turnMs = 620;
let turning: Animation | null = null;

/** Goes to `to` by turning one leaf over the spine; several leaves turn as one. */
export async function turnLeaf(viewer: Viewer, container: HTMLElement, to: number): Promise<void> {
	turning?.finish();
	const { pages } = { pages: viewer.pdf.numPages };
	const before = togetherWith(viewer.page, pages, 'turning', viewer.cover);
	const after = togetherWith(to, pages, 'turning', viewer.cover);
	if (before[0] === after[0] || matchMedia('(prefers-reduced-motion: reduce)').matches) {
		viewer.go(to);
		return;
	}
	const forward = after[0]! > before[0]!;
	// the leaf falls to the left going on, to the right going back; the other way round where a book is read from right to left
	const toLeft = forward !== viewer.fromRight;
	const going = forward ? before.at(-1)! : before[0]!;
	const staying = before.length === 2 ? (forward ? before[0]! : before[1]!) : null;
	const coming = forward ? after[0]! : after.at(-1)!;
	const spread = viewer.elementOf(going)?.getBoundingClientRect();
	const front = copyOf(viewer, going);
	const kept = staying === null ? null : copyOf(viewer, staying);
	// it stays on screen
	const keptBox = staying === null ? null : viewer.elementOf(staying)!.getBoundingClientRect();
	viewer.go(to);
	const arrived = viewer.elementOf(coming)?.getBoundingClientRect();
	if (!spread || !front || !arrived) return;
	const frame = container.getBoundingClientRect();
	const spine = toLeft ? arrived.right : arrived.left;
	const over = document.createElement('div');
	over.className = 'turning-leaf';
	over.setAttribute('aria-hidden', 'true');
	const width = arrived.width;
	over.style.cssText = `position:absolute;top:${arrived.top - frame.top + container.offsetTop}px;left:${(toLeft ? spine : spine - width) - frame.left + container.offsetLeft}px;width:${width}px;height:${arrived.height}px;transform-style:preserve-3d;transform-origin:${toLeft ? 'left' : 'right'} center;z-index:3;pointer-events:none`;
	const face = (canvas: HTMLCanvasElement | null, back: boolean) => {
		const side = document.createElement('div');
		side.style.cssText = `position:absolute;inset:0;background:#fff;backface-visibility:hidden;overflow:hidden;box-shadow:0 0 0 1px var(--line)${back ? ';transform:rotateY(180deg)' : ''}`;
		if (canvas) {
			canvas.style.cssText = 'width:100%;height:100%;display:block';
			side.append(canvas);
		}
		return side;
	};
	const back = face(null, true);
	over.append(face(front, false), back);
	// what the leaf falls on lies there until it is covered
	let under: HTMLElement | null = null;
	if (kept && keptBox) {
		under = document.createElement('div');
		under.setAttribute('aria-hidden', 'true');
		under.style.cssText = `position:absolute;top:${keptBox.top - frame.top + container.offsetTop}px;left:${keptBox.left - frame.left + container.offsetLeft}px;width:${keptBox.width}px;height:${keptBox.height}px;z-index:2;pointer-events:none;background:#fff`;
		kept.style.cssText = 'width:100%;height:100%;display:block';
		under.append(kept);
	}
	// the container stands in the stage
	const holder = container.parentElement!;
	holder.style.perspective = `${Math.round(width * 4)}px`;
	if (under) holder.append(under);
	holder.append(over);
	// the other side of the leaf is the page that comes, as soon as it is drawn
	const fill = setInterval(() => {
		const canvas = copyOf(viewer, coming);
		if (!canvas) return;
		clearInterval(fill);
		canvas.style.cssText = 'width:100%;height:100%;display:block';
		back.replaceChildren(canvas);
	}, 60);
	const animation = (turning = over.animate([{ transform: 'rotateY(0)' }, { transform: `rotateY(${toLeft ? -180 : 180}deg)` }], {
		duration: turnMs,
		easing: 'cubic-bezier(.35,.05,.3,1)',
		fill: 'forwards'
	}));
	await animation.finished.catch(() => undefined);
	clearInterval(fill);
	over.remove();
	under?.remove();
	if (turning === animation) turning = null;
}

function copyOf(viewer: Viewer, page: number): HTMLCanvasElement | null {
	const drawn = viewer.canvasOf(page);
	if (!drawn?.width) return null;
	const copy = document.createElement('canvas');
	[copy.width, copy.height] = [drawn.width, drawn.height];
	// a canvas without another context has this one
	copy.getContext('2d')!.drawImage(drawn, 0, 0);
	return copy;
}
