import type { Caller } from '$lib/server/people/who';

declare global {
	namespace App {
		interface Error {
			code: string;
			message: string;
			requestId?: string;
			/** For a turned-away page. */
			heading?: string;
			offersSignIn?: boolean;
		}
		interface Locals {
			caller: Caller;
			requestId: string;
			/** Name of the site, for pages that show an error. */
			siteName: string;
		}
		interface Platform {
			req: import('node:http').IncomingMessage;
		}
	}
}
