// Settings from the environment, checked once at start. docs/settings.md has a line for each.
import { Type, type Static } from '@sinclair/typebox';
import { nearestOf } from '#core/text/nearest';
import { proxiesOf, type Proxies } from './http/proxies';
import { keptSettings } from './settings-file';
import type { Bucket } from './store/s3';
import { compile } from './validate';

const Environment = Type.Object({
	IANUA_DATABASE_URL: Type.String({ pattern: '^postgres(ql)?://' }),
	IANUA_DATA: Type.String({ minLength: 1, default: './.ianua' }),
	/** The store: a folder, or `s3://bucket/prefix`. Anything else with a scheme is neither, and would be taken for a folder of that name. */
	IANUA_FILES: Type.Optional(
		Type.String({ minLength: 1, pattern: '^(?:(?![A-Za-z][A-Za-z0-9+.-]*:)|s3://[a-z0-9][a-z0-9.-]{1,61}[a-z0-9](?:/[A-Za-z0-9][A-Za-z0-9._-]*)*/?$)' })
	),
	/** Where a bucket is: its server (Amazon's own unless given), its region, and the key that opens it. */
	IANUA_S3_ENDPOINT: Type.Optional(Type.String({ pattern: '^https?://[^/]+/?$' })),
	IANUA_S3_REGION: Type.String({ minLength: 1, default: 'us-east-1' }),
	IANUA_S3_KEY: Type.Optional(Type.String({ minLength: 1 })),
	IANUA_S3_SECRET: Type.Optional(Type.String({ minLength: 1 })),
	/** Bytes of a bucket that this machine keeps copies of, those last asked for. */
	IANUA_NEAR: Type.Integer({ minimum: 0, default: 10_000_000_000 }),
	/** Seconds for which files of a bucket are handed out by addresses that it signs, in place of coming through here. */
	IANUA_FILES_SIGNED: Type.Optional(Type.Integer({ minimum: 1, maximum: 3600 })),
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
	/** Proxies in front, whose word on the reader's address counts: how many of them, or their networks (CIDR), several with commas. */
	IANUA_PROXIES: Type.Optional(Type.String({ minLength: 1 })),
	/**
	 * An address that the proxy in front keeps to itself and under which it gives the files of the store (nginx: `internal`, `alias`): files that
	 * are on disk then leave by it, once it is decided and entered here.
	 */
	IANUA_FILES_BY_PROXY: Type.Optional(Type.String({ pattern: '^/(?:[A-Za-z0-9_-]+/)+$' })),
	/** The same as IANUA_PROXIES=1. */
	IANUA_TRUST_PROXY: Type.Boolean({ default: false }),
	/** Seconds for which answers under way may go on once the server is told to stop. */
	IANUA_STOP_WAIT: Type.Integer({ minimum: 0, maximum: 86_400, default: 60 }),
	/** Most that a report on a screen waits until what was just entered is summed, ms; it shows what there is then. */
	IANUA_REPORT_WAIT: Type.Integer({ minimum: 0, maximum: 60_000, default: 1500 }),
	/** Connections to PostgreSQL that a process has at most for its work, beside four for find and one on which it hears of changes. */
	IANUA_CONNECTIONS: Type.Integer({ minimum: 4, maximum: 500, default: 16 }),
	/** Whether web servers take part in the jobs, or leave them to processes of their own (build/jobs.js). */
	IANUA_JOBS: Type.Union([Type.Literal('here'), Type.Literal('apart')], { default: 'here' }),
	/** The file that names the organisation's identity providers; `providers.json` of the data folder unless said. */
	IANUA_PROVIDERS: Type.Optional(Type.String({ minLength: 1 })),
	/** Months for which the trail of changes is kept; 0 keeps all of it. */
	IANUA_TRAIL_MONTHS: Type.Integer({ minimum: 0, maximum: 1200, default: 60 }),
	IANUA_LOG: Type.Union(
		['debug', 'info', 'warn', 'error', 'silent'].map((l) => Type.Literal(l)),
		{ default: 'info' }
	)
});

export type Settings = Static<typeof Environment> & {
	/** Folder of the store, or, where that is a bucket, of what of it is near: copies, and what is being made. */
	files: string;
	/** The bucket that is the store; null where a folder is. */
	bucket: Bucket | null;
	/** Origins under which a browser may speak to us: the site's own, and on loopback both of its names. */
	origins: readonly string[];
	/** From IANUA_WEB_ALLOW. */
	webAllow: readonly string[];
	/** From IANUA_PROXIES: a number of them, or their networks. */
	proxies: Proxies;
};

let known: Settings | undefined;

/** The settings, of the environment and then of the data folder; throws with one sentence for each that is wrong. */
export function settings(): Settings {
	return (known ??= readSettings({ ...keptSettings(process.env.IANUA_DATA ?? './.ianua'), ...process.env }));
}

/** Names that the start and the stand-ins set for each other, and that are read elsewhere. */
const others = ['IANUA_STANDIN_PORTS', 'IANUA_POSTGRES_PORT', 'IANUA_BENCH_DATA', 'IANUA_BENCH_DOCUMENTS', 'IANUA_BENCH_ENTRIES', 'IANUA_CONFINED'];
const readNames = [...Object.keys(Environment.properties), ...others];

/** Settings in an environment that nothing reads, each with the nearest name that something does: `IANUA_PROT` → `IANUA_PORT`. */
export function unknownSettings(environment: Record<string, string | undefined>): { name: string; nearest: string }[] {
	return Object.keys(environment)
		.filter((name) => name.startsWith('IANUA_') && !name.startsWith('IANUA_TEST_') && !readNames.includes(name))
		.map((name) => ({ name, nearest: nearestOf(name, readNames) }));
}

const inWords: Readonly<Record<string, string>> = {
	IANUA_FILES: 'IANUA_FILES is a folder, or a bucket as in s3://bucket or s3://bucket/prefix; other addresses with a scheme are neither'
};

/** Which folder and which bucket the settings name. Throws in a sentence where half of a key is given. */
export function storeOf(
	value: Pick<Static<typeof Environment>, 'IANUA_DATA' | 'IANUA_FILES' | 'IANUA_S3_ENDPOINT' | 'IANUA_S3_REGION' | 'IANUA_S3_KEY' | 'IANUA_S3_SECRET'>
) {
	const address = /^s3:\/\/([^/]+)\/?(.*?)\/?$/.exec(value.IANUA_FILES ?? '');
	if (!address) return { files: value.IANUA_FILES ?? `${value.IANUA_DATA}/files`, bucket: null };
	const { IANUA_S3_KEY: accessKeyId, IANUA_S3_SECRET: secretAccessKey } = value;
	if ((accessKeyId === undefined) !== (secretAccessKey === undefined))
		throw new Error('The settings are not right: IANUA_S3_KEY and IANUA_S3_SECRET come together. See docs/settings.md.');
	const [, bucket = '', prefix = ''] = address;
	return {
		files: `${value.IANUA_DATA}/near`,
		bucket: {
			bucket,
			prefix: prefix && `${prefix}/`,
			endpoint: value.IANUA_S3_ENDPOINT,
			region: value.IANUA_S3_REGION,
			...(accessKeyId !== undefined && secretAccessKey !== undefined ? { credentials: { accessKeyId, secretAccessKey } } : {})
		} satisfies Bucket
	};
}

/** Reads settings from an environment (for tests: any record). */
export function readSettings(environment: Record<string, string | undefined>): Settings {
	const given = Object.fromEntries(Object.entries(environment).filter(([name, value]) => name.startsWith('IANUA_') && value !== ''));
	const check = compile(Environment, { coerce: true });
	const result = check(given);
	if (!result.ok) {
		const name = /“(IANUA_\w+)”/.exec(result.detail)?.[1] ?? '';
		throw new Error(`The settings are not right: ${inWords[name] ?? result.detail}. See docs/settings.md.`);
	}
	const value = result.value;
	const origins = [value.IANUA_ORIGIN];
	const { protocol, hostname, port } = new URL(value.IANUA_ORIGIN);
	if (hostname === '127.0.0.1') origins.push(`${protocol}//localhost:${port}`);
	if (hostname === 'localhost') origins.push(`${protocol}//127.0.0.1:${port}`);
	return {
		...value,
		...storeOf(value),
		origins,
		proxies: proxiesOf(value.IANUA_PROXIES ?? (value.IANUA_TRUST_PROXY ? '1' : '0')),
		webAllow: value.IANUA_WEB_ALLOW.split(',')
			.map((h) => h.trim())
			.filter(Boolean)
	};
}
