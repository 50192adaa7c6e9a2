// Addresses of what is given a name here.
import anyAscii from 'any-ascii';
import { slugOf } from '#core/documents/address';

/** Letters of another script than the Latin. */
const foreign = /[^\p{Script=Latin}\p{Script=Common}\p{Script=Inherited}]/u;

/**
 * The address that a title makes, as `slugOf`; one in another script is spelt in Latin letters. `slugFor('Правила за шлюзове')` →
 * 'pravila-za-shlyuzove'.
 */
export const slugFor = (title: string, fallback?: string): string => slugOf(foreign.test(title) ? anyAscii(title) : title, fallback);
