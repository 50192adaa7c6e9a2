// The audit trail in words: what was done to what, and each thing that changed, from what to what.

export interface TrailEntry {
	readonly action: string;
	readonly kind: string;
	readonly before: unknown;
	readonly after: unknown;
}

/** One thing that changed. Null: there was none, or there is none any more. */
export interface TrailChange {
	readonly what: string;
	readonly from: string | null;
	readonly to: string | null;
}

const actions: Record<string, string> = {
	'brought-in': 'brought in',
	changed: 'changed',
	'door-set': 'set the door of',
	'edition-added': 'added an edition to',
	'edition-put-in': 'put another edition in force of',
	exchanged: 'exchanged',
	written: 'wrote',
	published: 'published',
	'taken-down': 'took down',
	'set-aside': 'set aside',
	restored: 'restored',
	added: 'added',
	removed: 'took out',
	erased: 'erased',
	invited: 'invited',
	closed: 'closed the account of',
	issued: 'issued',
	withdrawn: 'withdrew',
	'key-issued': 'issued a key for',
	'key-withdrawn': 'withdrew a key of',
	'key-restored': 'gave back a key of',
	'key-changed': 'gave another end to a key of',
	'let-in': 'let somebody in at',
	declined: 'declined a knock at',
	'signed-out': 'ended the sessions of',
	'second-factor': 'changed the second factor of',
	'first-owner': 'became the first owner of',
	exported: 'took everything out of'
};
export const trailActions: readonly string[] = Object.keys(actions);

/** An action of the trail in words; one that is not known as it is written. */
export const actionWords = (action: string): string => actions[action] ?? action;

const fields: Record<string, string> = {
	slug: 'address',
	sha256: 'checksum',
	allMembers: 'all members',
	from: 'from',
	until: 'until',
	'allow.save': 'saving',
	'allow.print': 'printing',
	allowSave: 'saving',
	allowPrint: 'printing',
	turnedAway: 'turned-away words',
	stamped: 'stamped copies',
	untilBound: 'last day',
	mailedTo: 'mailed to',
	coverAlt: 'alternative text',
	reading: 'how it is read',
	documentId: 'document',
	setAsideAt: 'set aside',
	handedTo: 'handed to'
};

/** What nobody reads: ids of the rows themselves. */
const left = new Set(['id', 'documentId', 'key', 'knock', 'editionId']);

function flat(value: unknown, prefix = ''): Map<string, unknown> {
	const out = new Map<string, unknown>();
	if (value === null || typeof value !== 'object' || Array.isArray(value)) return out;
	for (const [name, v] of Object.entries(value)) {
		if (left.has(name)) continue;
		if (v !== null && typeof v === 'object' && !Array.isArray(v)) for (const [k, inner] of flat(v, `${prefix}${name}.`)) out.set(k, inner);
		else out.set(prefix + name, v);
	}
	return out;
}

/**
 * What changed in an entry. `nameOf` gives the name for an id that stands in it, or null. Example: a door keyed to nobody that was opened →
 * [{what: 'position', from: 'keyed', to: 'open'}].
 */
export function trailChanges(entry: TrailEntry, nameOf: (id: string) => string | null): TrailChange[] {
	const [before, after] = [flat(entry.before), flat(entry.after)];
	const said = (value: unknown): string | null => {
		if (value === undefined || value === null || value === '') return null;
		if (typeof value === 'boolean') return value ? 'yes' : 'no';
		if (Array.isArray(value)) return value.length ? value.map((v) => said(v) ?? '').join(', ') : null;
		if (typeof value === 'object') {
			// a membership in a list
			const { group, from, until } = value as { group?: string; from?: string; until?: string };
			return group ? [group, from && `from ${from}`, until && `until ${until}`].filter(Boolean).join(' ') : JSON.stringify(value);
		}
		const text = typeof value === 'string' ? value : JSON.stringify(value);
		// of a SHA-256 the beginning tells files apart
		return nameOf(text) ?? (/^[0-9a-f]{64}$/.test(text) ? `${text.slice(0, 12)}…` : text);
	};
	const changes: TrailChange[] = [];
	for (const name of new Set([...before.keys(), ...after.keys()])) {
		// an entry that tells only what is new says nothing of what was
		if (entry.after !== null && entry.after !== undefined && before.has(name) && !after.has(name)) continue;
		const [from, to] = [said(before.get(name)), said(after.get(name))];
		if (from !== to) changes.push({ what: fields[name] ?? name.replace(/([A-Z])/g, (c) => ` ${c.toLowerCase()}`).replaceAll('.', ' '), from, to });
	}
	return changes;
}
