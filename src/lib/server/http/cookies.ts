// Hands the cookies of an answer made elsewhere (better-auth) on to kit's.
import type { Cookies } from '@sveltejs/kit';

/** Hands the cookies that another part set in its response on to kit. */
export function takeCookies(response: Response, cookies: Cookies): void {
	for (const line of response.headers.getSetCookie()) {
		const [pair = '', ...attributes] = line.split(';');
		const equals = pair.indexOf('=');
		const given = new Map(attributes.map((a) => a.trim().split('=')).map(([name = '', value = '']) => [name.toLowerCase(), value]));
		cookies.set(pair.slice(0, equals), decodeURIComponent(pair.slice(equals + 1)), {
			path: given.get('path') ?? '/',
			httpOnly: given.has('httponly'),
			secure: given.has('secure'),
			sameSite: 'lax',
			...(given.has('max-age') ? { maxAge: Number(given.get('max-age')) } : {})
		});
	}
}
