// Sign-in by better-auth: e-mail and password, sessions in PostgreSQL. Who a request comes from is who.ts.
import { betterAuth } from 'better-auth';
import { APIError, createAuthMiddleware } from 'better-auth/api';
import { genericOAuth, magicLink, twoFactor } from 'better-auth/plugins';
import { passkey } from '@better-auth/passkey';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { hash, verify } from '@node-rs/argon2';
import { eq, sql as raw } from 'drizzle-orm';
import { db } from '../db/client';
import * as schema from '../db/schema';
import { IanuaError } from '#core/errors';
import { onlyBy, type Claims } from '#core/people/provider';
import { asLine } from '#core/text/line';
import { newId } from '../id';
import { log } from '../log';
import { countOften, countRequest, countTry, wentWell } from './attempts';
import { arrive, noteArriving, noteMadeBy, providers } from './providers';
import { passkeySite } from './passkeys';
import { hashOf } from './secrets';
import { linkMinutes, mailLink, mailNewPassword } from './sign-in-mail';
import { countRefusedSignIn } from '../metrics';
import { settings } from '../settings';

export const cookiePrefix = 'ianua';
/** Set by hooks.server.ts from the connection itself; never taken from outside. */
export const addressHeader = 'x-ianua-address';

/** Password length: at least 10, as NIST SP 800-63B asks for 8 and more (from memory). */
export const passwordLength = { min: 10, max: 128 } as const;

interface AuthCall {
	path?: string;
	params?: { id?: string };
	body?: unknown;
	headers?: Headers;
}

const emailOf = ({ body }: AuthCall) => {
	const email = (body as { email?: unknown } | undefined)?.email;
	return typeof email === 'string' ? email.trim().toLowerCase().slice(0, 320) : null;
};
const addressOf = ({ headers }: AuthCall) => headers?.get(addressHeader) ?? '';

/** Counts what is tried: wrong passwords by address and place; mails, which go to one address only so often, from wherever they are asked for. */
async function countCall(call: AuthCall): Promise<void> {
	const email = emailOf(call);
	if (email === null) return;
	if (call.path === '/sign-in/email') await countTry(`password ${email}`, addressOf(call));
	else if (call.path === '/sign-in/magic-link' || call.path === '/request-password-reset') await countOften(`${call.path} ${email}`);
}

/** Ways in that a provider can keep for itself. */
const byHand: ReadonlySet<string> = new Set(['/sign-in/email', '/magic-link/verify', '/passkey/verify-authentication']);

/** Whether this person may have a session now, by the way they came. */
async function checkSession(userId: string, call: AuthCall): Promise<void> {
	const [row] = await db().select().from(schema.person).where(eq(schema.person.id, userId));
	if (!row || row.suspended || row.closedAt) throw new APIError('FORBIDDEN', { code: 'ACCOUNT_SUSPENDED', message: 'This account is suspended.' });
	if (call.path === '/callback/:id' && call.params?.id) await arrive(call.params.id, userId);
	const own = row.role === 'owner' || !byHand.has(call.path ?? '') ? null : onlyBy(providers(), row.email);
	if (own) throw new APIError('FORBIDDEN', { code: 'BY_PROVIDER', message: `People of this address sign in with ${own.name}.` });
	if (call.path === '/sign-in/email' && !row.emailVerified && settings().IANUA_SMTP_URL) {
		await auth().api.signInMagicLink({ body: { email: row.email }, headers: new Headers() });
		throw new APIError('FORBIDDEN', { code: 'CONFIRM_BY_MAIL', message: 'The first time, a mail asks you to confirm that it is you.' });
	}
	// RFC 6238, 5.2: a code that was taken once is not taken again
	if (call.path === '/two-factor/verify-totp') {
		const code = hashOf(`${userId} ${String((call.body as { code?: unknown }).code)} ${settings().IANUA_SECRET}`);
		const [known] = await db()
			.insert(schema.attempt)
			.values({ name: `code ${code}`, tries: 1, since: new Date() })
			.onConflictDoUpdate({ target: schema.attempt.name, set: { since: new Date() }, setWhere: raw`${schema.attempt.since} < now() - interval '10 minutes'` })
			.returning({ name: schema.attempt.name });
		if (!known) throw new APIError('UNAUTHORIZED', { code: 'INVALID_CODE', message: 'That code has been used.' });
	}
}

function later(mail: Promise<unknown>): void {
	mail.catch((err: unknown) => log().error({ err }, 'a mail of the sign-in was not sent'));
}

/** The organisation's identity providers, as better-auth takes them: OpenID Connect with discovery, PKCE, a nonce and a signed token, or not at all. */
const identityProviders = () =>
	genericOAuth({
		config: providers().map((provider) => ({
			providerId: provider.id,
			name: provider.name,
			discoveryUrl: `${provider.issuer.replace(/\/$/, '')}/.well-known/openid-configuration`,
			requireIdTokenVerification: true,
			clientId: provider.client,
			clientSecret: provider.secret,
			scopes: provider.scopes ?? ['openid', 'email', 'profile'],
			pkce: true,
			disableSignUp: provider.makesMembers === false,
			mapProfileToUser: (claims: Claims) => {
				noteArriving(provider.id, claims);
				const text = (value: unknown) => (typeof value === 'string' ? value : '');
				const email = text(claims.email).trim().toLowerCase();
				const name = asLine(text(claims.name)).slice(0, 120);
				return {
					email,
					name: name || email.split('@')[0]!,
					// no picture is kept of anybody
					image: undefined,
					...(provider.trustsAddresses ? { emailVerified: true } : { emailVerified: claims.email_verified === true || claims.email_verified === 'true' })
				};
			}
		}))
	});

/** Passkeys stand for a password and a second factor at once, so whoever holds one has to show that it is they (W3C Web Authentication, user verification). */
const byPasskey = () => {
	const { id, origin } = passkeySite() ?? {};
	const shown = (is: boolean | undefined) => {
		if (!is) throw new APIError('FORBIDDEN', { code: 'NOT_VERIFIED', message: 'The passkey did not make sure that it is you.' });
	};
	return passkey({
		...(id && origin ? { rpID: id, origin } : {}),
		authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
		advanced: { webAuthnChallengeCookie: 'passkey' },
		registration: {
			afterVerification: ({ verification }) => {
				shown(verification.registrationInfo?.userVerified);
				return Promise.resolve();
			}
		},
		authentication: {
			afterVerification: ({ verification }) => {
				shown(verification.authenticationInfo.userVerified);
				return Promise.resolve();
			}
		}
	});
};

/** What a provider hands over is used once and not kept. */
const withoutTokens = <A extends object>(given: A) => Promise.resolve({ data: { ...given, accessToken: null, refreshToken: null, idToken: null } });

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
				twoFactor: schema.secondFactor,
				passkey: schema.passkey
			}
		}),
		// accounts are made by staff, so an address that a provider has verified joins one whose own first sign-in is still to be confirmed
		account: { accountLinking: { requireLocalEmailVerified: false } },
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
			byPasskey(),
			identityProviders(),
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
			// whichever server they reach
			before: createAuthMiddleware(async (ctx) => {
				try {
					await countCall(ctx);
				} catch (refusal) {
					if (!(refusal instanceof IanuaError)) throw refusal;
					throw new APIError('TOO_MANY_REQUESTS', { message: refusal.message, code: refusal.code });
				}
			}),
			after: createAuthMiddleware(async (ctx) => {
				if (ctx.path === '/passkey/verify-authentication' && !ctx.context.newSession) countRefusedSignIn();
				const email = emailOf(ctx);
				if (email === null || ctx.path !== '/sign-in/email') return;
				if (ctx.context.newSession) await wentWell(`password ${email}`, addressOf(ctx));
				else countRefusedSignIn();
			})
		},
		databaseHooks: {
			session: { create: { before: (session, ctx) => checkSession(session.userId, (ctx ?? {}) as AuthCall) } },
			account: { create: { before: withoutTokens }, update: { before: withoutTokens } },
			user: {
				create: {
					// somebody whom a provider brings along; everybody else is made by staff
					before: (made) => Promise.resolve(made.emailVerified ? { data: made } : false),
					after: async (made, ctx) => noteMadeBy(((ctx ?? {}) as AuthCall).params?.id ?? '', made)
				}
			}
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
				'/sign-in/social': { window: 60, max: 60 },
				'/callback/*': { window: 60, max: 60 },
				'/request-password-reset': { window: 60, max: 20 },
				'/two-factor/*': { window: 60, max: 20 },
				'/passkey/*': { window: 60, max: 60 }
			}
		},
		advanced: {
			cookiePrefix,
			// said outright: better-auth leaves the check of ways on out where it takes its surroundings for a test
			disableOriginCheck: false,
			useSecureCookies: IANUA_ORIGIN.startsWith('https:'),
			database: { generateId: () => newId() },
			ipAddress: { ipAddressHeaders: [addressHeader], ipv6Subnet: 64 }
		}
	});
}

let made: ReturnType<typeof make> | undefined;
/** The sign-in library, set up once. */
export function auth() {
	return (made ??= make());
}

/** Whether a password fits a hash, in the time it takes either way. */
export const passwordFits = (hashed: string, password: string): Promise<boolean> => verify(hashed, password);

/** A password as it is kept: Argon2id with the package's defaults (19 MiB, 2 passes: OWASP's first choice, from memory). */
export function hashPassword(password: string): Promise<string> {
	return hash(password);
}
