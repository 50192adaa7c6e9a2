// Sign-in by better-auth: e-mail and password, sessions in PostgreSQL. Who a request comes from is who.ts.
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { hash, verify } from '@node-rs/argon2';
import { db } from '../db/client';
import * as schema from '../db/schema';
import { newId } from '../id';
import { settings } from '../settings';

export const cookiePrefix = 'ianua';
/** Set by hooks.server.ts from the connection itself; never taken from outside. */
export const addressHeader = 'x-ianua-address';

/** Password length: at least 10, as NIST SP 800-63B asks for 8 and more (from memory). */
export const passwordLength = { min: 10, max: 128 } as const;

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
			schema: { user: schema.person, session: schema.session, account: schema.account, verification: schema.verification, rateLimit: schema.rateLimit }
		}),
		emailAndPassword: {
			enabled: true,
			// Members are brought in by staff; nobody makes an account for themselves.
			disableSignUp: true,
			minPasswordLength: passwordLength.min,
			maxPasswordLength: passwordLength.max,
			password: { hash: hashPassword, verify: ({ hash: hashed, password }) => verify(hashed, password) }
		},
		session: { expiresIn: 30 * 24 * 3600, updateAge: 24 * 3600 },
		rateLimit: {
			enabled: true,
			storage: 'database',
			window: 60,
			max: 600,
			customRules: { '/sign-in/email': { window: 60, max: 60 } }
		},
		advanced: {
			cookiePrefix,
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
