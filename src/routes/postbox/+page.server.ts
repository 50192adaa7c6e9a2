// The demo's mailbox, for whoever sits at the machine (or is staff): server/guard/table. A site without it has nothing here.
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { near } from '$lib/server/guard/guard';
import { settings } from '$lib/server/settings';
import { postbox } from '$lib/server/mail/postbox';

export const load: PageServerLoad = async (event) => {
	near(event);
	// its links take over accounts: it is for trying on one machine, never for a site that others reach
	const { hostname } = new URL(settings().IANUA_ORIGIN);
	const mails = ['127.0.0.1', 'localhost', '[::1]'].includes(hostname) ? await postbox() : null;
	if (!mails) error(404, { code: 'not-found', message: 'There is nothing here for you at this address.' });
	return { mails };
};
