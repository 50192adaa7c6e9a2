// Whose copy is this: a file handed back is looked through for the number of its stamp.
import { rm, writeFile } from 'node:fs/promises';
import { fail } from '@sveltejs/kit';
import type { Actions } from './$types';
import { formOf } from '$lib/server/http/form';
import { staff } from '$lib/server/guard/guard';
import { temporaryPath } from '$lib/server/store/store';
import { ownersOf } from '$lib/server/reading/stamp';
import { settings } from '$lib/server/settings';

export const actions: Actions = {
	default: async (event) => {
		staff(event);
		const file = (await formOf(event.request)).get('file');
		if (!(file instanceof File) || file.size === 0) return fail(422, { trouble: 'Choose the file first.' });
		if (file.size > settings().IANUA_MAX_UPLOAD) return fail(413, { trouble: `“${file.name}” is larger than this site takes.` });
		const bytes = Buffer.from(await file.arrayBuffer());
		if (!bytes.subarray(0, 1024).includes('%PDF-')) return fail(415, { trouble: `“${file.name}” is no PDF.` });
		const path = await temporaryPath('.pdf');
		try {
			await writeFile(path, bytes);
			return { name: file.name, owners: await ownersOf(path) };
		} finally {
			await rm(path, { force: true });
		}
	}
};
