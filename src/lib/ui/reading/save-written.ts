// Saves the document with what was written into its fields, and has the ledger know of it as of any other save.
import type { Room } from './room.svelte';

/** Asks the server for the file, as saving does, so that its door decides and the save is entered; what is given to the reader is made here. */
export async function saveWritten(room: Room): Promise<void> {
	const { viewer } = room;
	if (!viewer) return;
	const asking = new AbortController();
	try {
		const answer = await fetch(room.saveAddress, { signal: asking.signal });
		if ([401, 403, 404, 410].includes(answer.status)) {
			room.withdraw();
			return;
		}
		if (!answer.ok) throw new Error(`the file may not be saved now (${answer.status})`);
		const made = URL.createObjectURL(await viewer.forms.save());
		const link = document.createElement('a');
		link.href = made;
		link.download = `${room.given.document.title.replace(/[\\/:*?"<>|]+/g, ' ').trim() || room.given.document.slug}.pdf`;
		link.click();
		setTimeout(() => URL.revokeObjectURL(made), 60_000);
	} catch (error) {
		console.error(error);
		room.written = true;
		room.said = room.say('couldNot');
	} finally {
		// its bytes are here already
		asking.abort();
	}
}
