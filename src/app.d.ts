import type { Language } from '#core/words/words';
import type { Caller } from '#server/people/who';

declare global {
	namespace App {
		interface Error {
			code: string;
			message: string;
			requestId?: string;
			/** For a turned-away page. */
			heading?: string;
			/** The reason in general words, where own words stand in `message`. */
			reason?: string | null;
			offersSignIn?: boolean;
			button?: { label: string; target: string } | null;
			/** What is announced of the thing that does not open: it is said whatever the reason. */
			announced?: { title: string; description: string; who: string } | null;
			/** Where one may ask to be let in. */
			knockAt?: string | null;
		}
		interface Locals {
			caller: Caller;
			requestId: string;
			/** The language in which readers are spoken to. */
			language: Language;
			/** Name of the site, for pages that show an error. */
			siteName: string;
			/** From when on the page is another by the clock, besides hours of doors and the day (http/kept-pages.ts; ms since the epoch). */
			sameUntil?: number;
			/** For /embed: the website that frames, and whether it may. */
			framing?: { by: string | null; allowed: boolean };
		}
		interface Platform {
			req: import('node:http').IncomingMessage;
		}
	}
}
