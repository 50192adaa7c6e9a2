// Receipts: a member's own "I have read this", of one edition, once (model.md, "Receipt").
import type { Standing } from './counting';

/** When a document asks for a receipt: once, whatever comes later, or again for each edition. */
export const receiptAsks = ['once', 'each-edition'] as const;
export type ReceiptAsks = (typeof receiptAsks)[number];

/**
 * Whether somebody who stands so is reminded: who has not opened the edition in force; where a document asks for a receipt, who has given none; and with
 * `unfinished` who has not read it through.
 */
export const isAwaited = (standing: Standing, { asks, unfinished = false }: { asks: boolean; unfinished?: boolean }): boolean =>
	standing !== 'receipt' && (standing === 'not-yet' || asks || (unfinished && standing === 'opened'));
