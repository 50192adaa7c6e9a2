// Vite's development server on the data folder .ianua: npm run dev.
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { startPostgres } from '#server/db/cluster';

const postgres = await startPostgres('.ianua');
const child = spawn('node', ['node_modules/vite/bin/vite.js', 'dev', '--port', '4173', '--strictPort', '--host', '127.0.0.1'], {
	stdio: 'inherit',
	env: { ...process.env, IANUA_DATABASE_URL: postgres.url, IANUA_SECRET: process.env.IANUA_SECRET ?? randomBytes(32).toString('hex') }
});
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => child.kill(signal));
child.on('exit', (code) => {
	postgres.stop();
	process.exit(code ?? 0);
});
