import { catalogue } from '#core/errors';

export const csr = false;

export const load = () => ({
	problems: Object.entries(catalogue)
		.map(([code, { status, words }]) => ({ code, status, words }))
		.sort((a, b) => a.code.localeCompare(b.code, 'en'))
});
