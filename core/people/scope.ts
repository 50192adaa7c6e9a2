// What a token for programs may do: scopes, folders, a last day. What each operation asks for stands in server/guard/table.

/** Every scope with what it lets a program do, in words. */
export const scopeWords = {
	'documents:read': 'see and fetch documents',
	'documents:write': 'bring documents in and change them, their doors and keys',
	'pages:read': 'see pages and their drafts',
	'pages:write': 'write, publish and take down pages',
	'people:read': 'see members, groups and knocks',
	'people:write': 'change members and groups, answer knocks',
	'readership:read': 'read the ledger and reports',
	'site:write': 'see and change the site’s settings'
} as const;

export type Scope = keyof typeof scopeWords;
export const scopes = Object.keys(scopeWords) as readonly Scope[];
/** Whether a text names something that a token can be given. */
export const isScope = (text: string): text is Scope => Object.hasOwn(scopeWords, text);

/** Scopes that a token bound to folders can have: the others reach over all folders. */
export const folderScopes: readonly Scope[] = ['documents:read', 'documents:write', 'readership:read'];

/** Days for which a token holds where nobody says, and for which it can hold at most. */
export const tokenDays = { usual: 90, most: 400 } as const;

/** What a token that was presented may do. */
export interface Grant {
	readonly id: string;
	readonly scopes: readonly Scope[];
	/** Only documents in these folders; null is all of them. */
	readonly folders: readonly string[] | null;
}

/** Whether a token has all the scopes that are asked for. No scope asked for is nothing that a token could do. */
export function grants(grant: Grant, wanted: readonly Scope[]): boolean {
	return wanted.length > 0 && wanted.every((scope) => grant.scopes.includes(scope));
}

/** Whether a token reaches a folder. */
export const reaches = (grant: Grant, folder: string): boolean => grant.folders === null || grant.folders.includes(folder);
