// What ./start does once the machine has what it needs; with --dev, what npm run dev does.
import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { build } from './build';
import { runIanua } from './run';

const { values } = parseArgs({
	options: {
		port: { type: 'string', default: '4173' },
		data: { type: 'string' },
		empty: { type: 'boolean', default: false },
		store: { type: 'string', default: 'disk' },
		identity: { type: 'boolean', default: false },
		dev: { type: 'boolean', default: false }
	}
});
const port = Number(values.port);
if (!Number.isInteger(port) || port < 1 || port > 65535) {
	console.error(`--port takes a number from 1 to 65535, not “${values.port}”.`);
	process.exit(2);
}

if (values.store !== 'disk' && values.store !== 's3') {
	console.error(`--store takes disk or s3, not “${values.store}”.`);
	process.exit(2);
}

const development = values.dev;
// what one works with is apart from what one shows: the files of each belong to another user
const data = resolve(values.data ?? (development ? './.ianua-dev' : './.ianua'));
if (!development) build();
const running = await runIanua({
	data,
	port,
	demo: !values.empty,
	bucket: values.store === 's3',
	identity: values.identity,
	development,
	restart: !development,
	ownUser: !development,
	say: console.log
}).catch((error: unknown) => {
	console.error((error as Error).message);
	process.exit(1);
});

console.log(`\nIanua is open at ${running.origin}`);
const signIn = join(data, 'sign-in.json');
if (!values.empty && existsSync(signIn)) {
	const { staff, member } = JSON.parse(readFileSync(signIn, 'utf8')) as Record<'staff' | 'member', { email: string; password: string; groups?: string[] }>;
	console.log(`  staff    ${staff.email}   ${staff.password}`);
	console.log(`  member   ${member.email}   ${member.password}   (${member.groups?.join(', ')})`);
} else if (values.empty) console.log('  The first visit asks for the code above, and the owner’s name and password.');
if (values.identity) console.log('  Under Sign in, Canal House lets anybody in who gives a mail address, with any password.');
console.log('Ctrl-C stops everything.');

let ending = false;
async function end(code: number): Promise<void> {
	if (ending) return;
	ending = true;
	await running.stop();
	process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => void end(0));
void running.ended.then((code) => end(code || 1));
