// What is true of a document or page at an instant. One answer, used everywhere: rows, filters, counts, lists, find, feed, sitemap, headers
// and the API take it from here, or from the view thing_in_force in SQL, which a test holds against this.
import type { Door, Position, Guarded } from './door';
import { within, type Instant } from './hours';

export interface Standing {
	/** In force now: shut also when set aside, outside its hours, or when the page it follows is. */
	readonly position: Position;
	/** The hours of the door in force. */
	readonly from: Instant | null;
	readonly until: Instant | null;
	/** Whether lists name it to everyone: of the door in force, never of the thing's own. */
	readonly listed: boolean;
	/** Whether search engines may: open, listed and welcome. */
	readonly indexable: boolean;
}

/** The door in force: the followed page's where there is one, but with the document's own allowance. */
export function doorInForce(thing: Guarded): Door {
	return thing.follows ? { ...thing.follows.door, allow: thing.door.allow } : thing.door;
}

/** Whether the thing, or the page that it follows, is not there for readers at all: set aside, or that page not published. */
export function isAway(thing: Guarded): boolean {
	return thing.setAside || (thing.follows !== null && (thing.follows.setAside || thing.follows.unpublished === true));
}

/**
 * How a thing stands at an instant. Example: a document whose own door is open and listed, following a page that is open and not listed
 * → `{position: 'open', from: null, until: null, listed: false, indexable: false}`.
 */
export function standingOf(thing: Guarded, at: Instant): Standing {
	const door = doorInForce(thing);
	const position = isAway(thing) || within(door.hours, at) !== 'in' ? 'shut' : door.position;
	const listed = position !== 'shut' && door.listed;
	return { position, ...door.hours, listed, indexable: position === 'open' && listed };
}

/** Whether everyone may know that it is there, with title, description and for whom it is kept: keyed at that instant, and the door in force says so. */
export const isAnnounced = (thing: Guarded, at: Instant): boolean => standingOf(thing, at).position === 'keyed' && doorInForce(thing).announced;
