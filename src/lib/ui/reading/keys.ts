// The keys of the reading room; they never fire while somebody types.
import type { Room } from './room.svelte';

/** What keys do in the reading room; keys of fields and of the browser are left alone. */
export function roomKeys(room: Room, also: { screen(): void; close(): void }): (event: KeyboardEvent) => void {
	// where a book is read from right to left, what lies on the left comes next
	const toRight = () => (room.fromRight ? -1 : 1);
	return (event) => {
		const target = event.target as HTMLElement;
		if (event.key === 'Escape') {
			if (document.fullscreenElement && !room.panel) return;
			event.preventDefault();
			also.close();
			return;
		}
		if ((event.ctrlKey || event.metaKey) && !event.altKey) {
			withControl(room, event);
			return;
		}
		if (event.altKey || target.closest('input:not([type=checkbox], [type=radio]), select, textarea, [contenteditable]')) return;
		// a control has its own use for these
		const onControl = target.closest('button, a, summary, input, [role=slider]') !== null;
		const { key } = event;
		const down = room.way === 'down' || room.way === 'tiled';
		if (key === 'ArrowRight') room.step(toRight());
		else if (key === 'ArrowLeft') room.step(toRight() === 1 ? -1 : 1);
		else if (key === 'PageDown' && !down) room.step(1);
		else if (key === 'PageUp' && !down) room.step(-1);
		else if (key === ' ' && room.byTurns && !onControl) room.step(event.shiftKey ? -1 : 1);
		else if (key === 'Home') room.go(1);
		else if (key === 'End') room.go(room.given.document.pages);
		else if (key === '/' && room.has('find')) room.panel = 'find';
		else if (key === 'n') room.findNext('next');
		else if (key === 'v') room.findNext('previous');
		else if ((key === '+' || key === '=') && room.has('fit')) room.zoom(1);
		else if ((key === '-' || key === '−') && room.has('fit')) room.zoom(-1);
		else if (key === '0' && room.has('fit')) room.setFit('page');
		else if (key === 'w' && room.has('ways')) room.nextWay();
		else if ((key === 'r' || key === 'R') && room.has('turn')) room.turn(key === 'R' ? -1 : 1);
		else if (key === 's' && room.has('full-screen')) also.screen();
		else if (key === 'b') room.goBack();
		else if (key === 'g') document.querySelector<HTMLInputElement>('.sill .page input')?.focus();
		else if (key === '?') {
			room.panel = 'more';
			requestAnimationFrame(() => {
				const keys = document.querySelector<HTMLDetailsElement>('#keys');
				if (keys) keys.open = true;
				keys?.querySelector('summary')?.focus();
			});
		} else if ((key === 'ArrowDown' || key === 'ArrowUp' || key === 'PageDown' || key === 'PageUp') && !onControl) {
			const container = document.querySelector<HTMLElement>('.room .stage');
			if (!container) return;
			const by = key.startsWith('Page') ? container.clientHeight * 0.9 : 60;
			container.scrollBy({ top: /Down$/.test(key) ? by : -by });
		} else return;
		event.preventDefault();
	};
}

function withControl(room: Room, event: KeyboardEvent) {
	if (event.key === 'f' && room.has('find')) room.panel = 'find';
	else if (event.key === 'p') room.panel = room.given.mayPrint && room.has('print') ? 'print' : room.panel;
	// larger and smaller letters of everything are the browser's
	else return;
	event.preventDefault();
}
