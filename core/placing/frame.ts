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

type Shown = Pick<FrameParts, 'turned' | 'spread'>;

/** What stands in the frame: the page as it is turned, or two of them side by side. */
function shownShape(page: PageShape, { turned = 0, spread = false }: Shown): PageShape {
	const [width, height] = turned % 2 ? [page.height, page.width] : [page.width, page.height];
	return { width: spread ? 2 * width : width, height };
}

/** Of the height to the width of what stands in the frame. A4 upright: 1.414. */
export function shapeRatio(page: PageShape, shown: Shown = {}): number {
	const { width, height } = shownShape(page, shown);
	return height / width;
}

/**
 * Height in CSS px of a frame `width` px wide in which one whole page stands: tools and borders, and the width by the page's
 * shape. Without tools and borders A4 at 700 px is 990 high, at 640 it is 905; Letter at 640 is 828.
 */
export function frameHeight(width: number, page: PageShape, { tools = 0, borders = 0, ...shown }: FrameParts = {}): number {
	const shape = shownShape(page, shown);
	// multiplied first: a half is then exactly a half, with tools and without them
	return Math.round(tools + borders + (width * shape.height) / shape.width);
}
