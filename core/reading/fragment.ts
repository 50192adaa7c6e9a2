// What the fragment of a reading room's address asks for (RFC 8118, section 3; parameters stand apart by & or #).

export interface Fragment {
	/** Page number from 1; null where none is named. */
	readonly page: number | null;
	/** Words to be marked. */
	readonly search: readonly string[];
}

/** `fragment('#page=3&search=%22lock%20gate%22')` → { page: 3, search: ['lock', 'gate'] }. */
export function fragment(hash: string): Fragment {
	const values = new Map<string, string>();
	for (const part of hash.replace(/^#/, '').split(/[&#]/)) {
		const at = part.indexOf('=');
		if (at > 0) values.set(part.slice(0, at).toLowerCase(), decoded(part.slice(at + 1)));
	}
	const page = /^\d{1,7}$/.exec(values.get('page') ?? '');
	const search = (values.get('search') ?? '').slice(0, 500).match(/[\p{L}\p{M}\p{N}]+/gu) ?? [];
	return { page: page && Number(page[0]) > 0 ? Number(page[0]) : null, search: [...new Set(search)].slice(0, 20) };
}

function decoded(text: string): string {
	try {
		return decodeURIComponent(text.replace(/\+/g, ' '));
	} catch {
		return text;
	}
}
