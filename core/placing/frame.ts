// How high a reading frame is, so that one whole page stands in it.

/** The sill of a reading frame, in CSS px. */
export const sillHeight = 46;

export interface PageShape {
	/** Any unit, as long as it is one. */
	readonly width: number;
	readonly height: number;
}

export interface FrameParts {
	/** Height of the tools, in CSS px. */
	readonly tools?: number;
	/** Both borders together, in CSS px. */
	readonly borders?: number;
	/** Quarter turns clockwise by which the page is shown. */
	readonly turned?: number;
	/** Two pages side by side. */
	readonly spread?: boolean;
}

/** Of the height to the width of what stands in the frame. A4 upright: 1.414. */
export function shapeRatio(page: PageShape, { turned = 0, spread = false }: Pick<FrameParts, 'turned' | 'spread'> = {}): number {
	const [width, height] = turned % 2 ? [page.height, page.width] : [page.width, page.height];
	return height / (spread ? 2 * width : width);
}

/**
 * Height in CSS px of a frame `width` px wide in which one whole page stands: tools and borders, and the width by the page's
 * shape. Without tools and borders A4 at 700 px is 990 high, at 640 it is 905; Letter at 640 is 828.
 */
export function frameHeight(width: number, page: PageShape, { tools = 0, borders = 0, ...shown }: FrameParts = {}): number {
	return Math.round(tools + borders + width * shapeRatio(page, shown));
}
