// Settings from the environment, checked once at start. docs/settings.md has a line for each.
import { Type, type Static } from '@sinclair/typebox';
import { compile } from './validate';

const Environment = Type.Object({
	IANUA_DATABASE_URL: Type.String({ pattern: '^postgres(ql)?://' }),
	IANUA_DATA: Type.String({ minLength: 1, default: './.ianua' }),
	IANUA_FILES: Type.Optional(Type.String({ minLength: 1 })),
	IANUA_ORIGIN: Type.String({ pattern: '^https?://[^/]+$', default: 'http://127.0.0.1:4173' }),
	IANUA_HOST: Type.String({ minLength: 1, default: '127.0.0.1' }),
	IANUA_PORT: Type.Integer({ minimum: 1, maximum: 65535, default: 4173 }),
	IANUA_SECRET: Type.String({ minLength: 32 }),
	IANUA_MAX_UPLOAD: Type.Integer({ minimum: 1, default: 200_000_000 }),
	/** host:port, several with commas, that files may be fetched from whatever their address. */
	IANUA_WEB_ALLOW: Type.String({ default: '' }),
	IANUA_SMTP_URL: Type.Optional(Type.String({ pattern: '^smtps?://' })),
	/** Folder of a stand-in mailbox, shown to everybody under /postbox: for trying only. */
	IANUA_POSTBOX: Type.Optional(Type.String({ minLength: 1 })),
	IANUA_MAIL_FROM: Type.String({ minLength: 3, default: 'Ianua <ianua@example.org>' }),
	IANUA_TRUST_PROXY: Type.Boolean({ default: false }),
	IANUA_LOG: Type.Union(
		['debug', 'info', 'warn', 'error', 'silent'].map((l) => Type.Literal(l)),
		{ default: 'info' }
	)
});

export type Settings = Static<typeof Environment> & {
	/** Folder of the store. */
	files: string;
	/** Origins under which a browser may speak to us: the site's own, and on loopback both of its names. */
	origins: readonly string[];
	/** From IANUA_WEB_ALLOW. */
	webAllow: readonly string[];
};

let known: Settings | undefined;

/** The settings; throws with one sentence for each variable that is wrong. */
export function settings(): Settings {
	return (known ??= readSettings(process.env));
}

/** Reads settings from an environment (for tests: any record). */
export function readSettings(environment: Record<string, string | undefined>): Settings {
	const given = Object.fromEntries(Object.entries(environment).filter(([name, value]) => name.startsWith('IANUA_') && value !== ''));
	const check = compile(Environment, { coerce: true });
	const result = check(given);
	if (!result.ok) throw new Error(`The settings are not right: ${result.detail}. See docs/settings.md.`);
	const value = result.value;
	const origins = [value.IANUA_ORIGIN];
	const { protocol, hostname, port } = new URL(value.IANUA_ORIGIN);
	if (hostname === '127.0.0.1') origins.push(`${protocol}//localhost:${port}`);
	if (hostname === 'localhost') origins.push(`${protocol}//127.0.0.1:${port}`);
	return {
		...value,
		files: value.IANUA_FILES ?? `${value.IANUA_DATA}/files`,
		origins,
		webAllow: value.IANUA_WEB_ALLOW.split(',')
			.map((h) => h.trim())
			.filter(Boolean)
	};
}
