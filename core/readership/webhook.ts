// Webhooks after the Standard Webhooks specification 1.0 (from memory): what is signed, and when a delivery is tried again.

export const webhookEvents = ['opened', 'saved', 'turned-away', 'knocked', 'condition-changed'] as const;
export type WebhookEvent = (typeof webhookEvents)[number];

/** What the signature is made over: the id of the message, its time in whole seconds since 1970, and its body, joined by full stops. */
export const signedContent = (id: string, seconds: number, body: string): string => `${id}.${seconds}.${body}`;

/** Seconds to wait after so many failed tries; null where it is given up. The times are those that the specification suggests. */
export function waitAfter(tries: number): number | null {
	const waits = [5, 300, 1_800, 7_200, 18_000, 36_000, 50_400, 72_000, 86_400];
	return waits[tries - 1] ?? null;
}
