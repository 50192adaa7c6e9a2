// Hands the cookies of an answer made elsewhere (better-auth) on to kit's.
import type { Cookies } from '@sveltejs/kit';

export function takeCookies(response: Response, cookies: Cookies): void {
	for (const line of response.headers.getSetCookie()) {
		const [pair = '', ...attributes] = line.split(';');
		const at = pair.indexOf('=');
		const given = new Map(attributes.map((a) => a.trim().split('=')).map(([name = '', value = '']) => [name.toLowerCase(), value]));
		cookies.set(pair.slice(0, at), decodeURIComponent(pair.slice(at + 1)), {
			path: given.get('path') ?? '/',
			httpOnly: given.has('httponly'),
			secure: given.has('secure'),
			sameSite: 'lax',
			...(given.has('max-age') ? { maxAge: Number(given.get('max-age')) } : {})
		});
	}
}
