// The demo's mailbox. A site without it has nothing here.
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { postbox } from '$lib/server/mail/postbox';

export const load: PageServerLoad = async () => {
	const mails = await postbox();
	if (!mails) error(404, { code: 'not-found', message: 'There is nothing here for you at this address.' });
	return { mails };
};
