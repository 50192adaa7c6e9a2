// Webhooks after the Standard Webhooks specification 1.0 (from memory): what is signed, and when a delivery is tried again.

export const webhookEvents = [
	'opened',
	'saved',
	'turned-away',
	'knocked',
	'receipt',
	'brought-in',
	'edition-in-force',
	'condition-changed',
	'source-changed',
	'set-aside',
	'restored',
	'door-changed',
	'key-issued',
	'key-withdrawn',
	'page-published',
	'page-taken-down',
	'member-added',
	'member-changed',
	'member-removed'
] as const;
export type WebhookEvent = (typeof webhookEvents)[number];

/** What of the audit trail is told, by the kind of thing and what was done to it. The others are told by the ledger, the check and the source. */
export const trailEvents: readonly { readonly event: WebhookEvent; readonly kind: string; readonly action: string }[] = [
	{ event: 'brought-in', kind: 'document', action: 'brought-in' },
	{ event: 'edition-in-force', kind: 'document', action: 'edition-put-in' },
	{ event: 'set-aside', kind: 'document', action: 'set-aside' },
	{ event: 'restored', kind: 'document', action: 'restored' },
	{ event: 'door-changed', kind: 'document', action: 'door-set' },
	{ event: 'door-changed', kind: 'page', action: 'door-set' },
	{ event: 'key-issued', kind: 'document', action: 'key-issued' },
	{ event: 'key-issued', kind: 'document', action: 'key-restored' },
	{ event: 'key-withdrawn', kind: 'document', action: 'key-withdrawn' },
	{ event: 'page-published', kind: 'page', action: 'published' },
	{ event: 'page-taken-down', kind: 'page', action: 'taken-down' },
	{ event: 'page-taken-down', kind: 'page', action: 'set-aside' },
	{ event: 'member-added', kind: 'person', action: 'added' },
	{ event: 'member-changed', kind: 'person', action: 'changed' },
	{ event: 'member-removed', kind: 'person', action: 'removed' },
	{ event: 'member-removed', kind: 'person', action: 'erased' }
];

/** What the signature is made over: the id of the message, its time in whole seconds since 1970, and its body, joined by full stops. */
export const signedContent = (id: string, seconds: number, body: string): string => `${id}.${seconds}.${body}`;

/** Seconds to wait after so many failed tries; null where it is given up. The times are those that the specification suggests. */
export function waitAfter(tries: number): number | null {
	const waits = [5, 300, 1_800, 7_200, 18_000, 36_000, 50_400, 72_000, 86_400];
	return waits[tries - 1] ?? null;
}
