// How a reading room stands in a frame, as its address says.
import { frameTools, type FrameTool } from '../placing/placement';

export interface RoomFrame {
	/** On a page of the site, on another website, or over the page. */
	readonly kind: 'page' | 'outside' | 'over';
	readonly fit: 'page' | 'width';
	/** Whether the fore-edge is shown. */
	readonly edge: boolean;
	readonly tools: readonly FrameTool[];
	readonly theme: 'system' | 'light' | 'dark';
}

/** What a query asks for; `get` gives a parameter's value or null. What makes no sense is as if it were not there. */
export function roomFrame(kind: RoomFrame['kind'], get: (name: string) => string | null): RoomFrame {
	const tools = get('tools')?.split(/[ +]/);
	const theme = get('theme');
	return {
		kind,
		fit: get('fit') === 'width' ? 'width' : 'page',
		edge: kind === 'over' || get('edge') === '1',
		tools: tools ? frameTools.filter((tool) => tools.includes(tool)) : frameTools,
		theme: theme === 'light' || theme === 'dark' ? theme : 'system'
	};
}
