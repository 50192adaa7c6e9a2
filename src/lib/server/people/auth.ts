// Sign-in by better-auth: e-mail and password, sessions in PostgreSQL. Who a request comes from is who.ts.
import { betterAuth } from 'better-auth';
import { APIError, createAuthMiddleware } from 'better-auth/api';
import { magicLink, twoFactor } from 'better-auth/plugins';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { hash, verify } from '@node-rs/argon2';
import { db } from '../db/client';
import * as schema from '../db/schema';
import { IanuaError } from '#core/errors';
import { newId } from '../id';
import { log } from '../log';
import { countRequest, countTry, forgetTries } from './attempts';
import { linkMinutes, mailLink, mailNewPassword } from './sign-in-mail';
import { settings } from '../settings';

export const cookiePrefix = 'ianua';
/** Set by hooks.server.ts from the connection itself; never taken from outside. */
export const addressHeader = 'x-ianua-address';

/** Password length: at least 10, as NIST SP 800-63B asks for 8 and more (from memory). */
export const passwordLength = { min: 10, max: 128 } as const;

/** Under what tries are counted: wrong passwords, and mails asked for, by address and place. Null where nothing is counted. */
function triesOf(ctx: { path?: string; body?: unknown; headers?: Headers }): string | null {
	const { path = '' } = ctx;
	if (!['/sign-in/email', '/sign-in/magic-link', '/request-password-reset'].includes(path)) return null;
	const email = (ctx.body as { email?: unknown } | undefined)?.email;
	if (typeof email !== 'string') return null;
	// mails go to one address only so often, from wherever they are asked for
	const place = path === '/sign-in/email' ? ` ${ctx.headers?.get(addressHeader) ?? ''}` : '';
	return `${path} ${email.trim().toLowerCase().slice(0, 320)}${place}`;
}

function later(mail: Promise<unknown>): void {
	mail.catch((err: unknown) => log().error({ err }, 'a mail of the sign-in was not sent'));
}

function make() {
	const { IANUA_SECRET, IANUA_ORIGIN, origins } = settings();
	return betterAuth({
		appName: 'Ianua',
		secret: IANUA_SECRET,
		baseURL: IANUA_ORIGIN,
		basePath: '/api/auth',
		trustedOrigins: [...origins],
		telemetry: { enabled: false },
		logger: { level: 'error' },
		database: drizzleAdapter(db(), {
			provider: 'pg',
			schema: {
				user: schema.person,
				session: schema.session,
				account: schema.account,
				verification: schema.verification,
				twoFactor: schema.secondFactor
			}
		}),
		emailAndPassword: {
			enabled: true,
			// Members are brought in by staff; nobody makes an account for themselves.
			disableSignUp: true,
			minPasswordLength: passwordLength.min,
			maxPasswordLength: passwordLength.max,
			password: { hash: hashPassword, verify: ({ hash: hashed, password }) => verify(hashed, password) },
			resetPasswordTokenExpiresIn: linkMinutes * 60,
			revokeSessionsOnPasswordReset: true,
			// not waited for: an answer that takes longer would tell that the address has an account
			sendResetPassword: ({ user, token }) => {
				later(mailNewPassword(user.email, token));
				return Promise.resolve();
			}
		},
		verification: { storeIdentifier: 'hashed' },
		plugins: [
			twoFactor({ issuer: 'Ianua' }),
			magicLink({
				disableSignUp: true,
				storeToken: 'hashed',
				expiresIn: linkMinutes * 60,
				sendMagicLink: ({ email, token }) => {
					later(mailLink(email, token));
					return Promise.resolve();
				}
			})
		],
		hooks: {
			// ten wrong passwords for one address from one place within a quarter of an hour, whichever server they reach
			before: createAuthMiddleware(async (ctx) => {
				const name = triesOf(ctx);
				if (!name) return;
				try {
					await countTry(name);
				} catch (refusal) {
					if (!(refusal instanceof IanuaError)) throw refusal;
					throw new APIError('TOO_MANY_REQUESTS', { message: refusal.message, code: refusal.code });
				}
			}),
			after: createAuthMiddleware(async (ctx) => {
				const name = triesOf(ctx);
				if (name && ctx.path === '/sign-in/email' && ctx.context.newSession) await forgetTries(name);
			})
		},
		session: { expiresIn: 30 * 24 * 3600, updateAge: 24 * 3600 },
		rateLimit: {
			enabled: true,
			// the library's own count only ends after a whole window without a try
			customStorage: { consume: countRequest },
			window: 60,
			max: 600,
			customRules: {
				'/sign-in/email': { window: 60, max: 60 },
				'/sign-in/magic-link': { window: 60, max: 20 },
				'/request-password-reset': { window: 60, max: 20 },
				'/two-factor/*': { window: 60, max: 20 }
			}
		},
		advanced: {
			cookiePrefix,
			// said outright: better-auth leaves the check of ways on out where it takes its surroundings for a test
			disableOriginCheck: false,
			useSecureCookies: IANUA_ORIGIN.startsWith('https:'),
			database: { generateId: () => newId() },
			ipAddress: { ipAddressHeaders: [addressHeader] }
		}
	});
}

let made: ReturnType<typeof make> | undefined;
export function auth() {
	return (made ??= make());
}

/** Argon2id with the package's defaults (19 MiB, 2 passes: OWASP's first choice, from memory). */
/** Whether a password fits a hash, in the time it takes either way. */
export const passwordFits = (hashed: string, password: string): Promise<boolean> => verify(hashed, password);

export function hashPassword(password: string): Promise<string> {
	return hash(password);
}
