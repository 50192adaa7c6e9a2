// A file on its way in, as the tray shows it and as the server tells of it.
import type { Answer } from '$lib/ui/parts/api';
import type { ConditionStatus } from '#core/intake/condition';

export type EntryState =
	/** Its checksum is being taken. */
	| 'looking'
	/** The same bytes are here already: somebody has to say what is meant. */
	| 'known'
	| 'waiting'
	| 'uploading'
	| 'paused'
	/** The connection is lost; it goes on by itself. */
	| 'lost'
	/** Some of it has arrived, but the browser no longer has the file. */
	| 'needs-file'
	/** Another window of this browser sends it. */
	| 'elsewhere'
	| 'checking'
	| 'in'
	| 'refused'
	| 'stopped';

export interface TrayEntry {
	readonly key: number;
	/** The upload's id, given here, so that it is known again whatever became of the first request. */
	readonly id: string;
	/** The server knows of it. */
	begun: boolean;
	readonly name: string;
	readonly bytes: number;
	state: EntryState;
	/** Share uploaded, 0 to 1. */
	progress: number;
	/** Why it was refused, and what to do. */
	trouble: string | null;
	document: { slug: string; title: string; condition: ConditionStatus } | null;
	known: readonly { slug: string; title: string; inForce: boolean }[];
	/** The document it is a new edition of. */
	editionOf: string | null;
	/** Name of the folder that it comes into; empty for none. */
	readonly folder: string;
	/** Put in since the desk was opened; what an earlier page of it began is not. */
	readonly here: boolean;
	/** Put in by itself: it shows itself once it is in. */
	readonly alone: boolean;
}

/** What the server knows of a file. */
export type ServerLine = Answer<'get /intake'>['items'][number];
