// nginx as operating/nginx.conf sets it up, on a port of loopback: for tests and figures. From the machine, or as scripts/machine.sh took it
// out of Debian's package, so that no service begins on a machine on which only tests are run.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { freePort } from '#server/db/cluster';

const programs = ['/usr/sbin/nginx', resolve('.tools/nginx/usr/sbin/nginx')];

/** nginx's program; throws where there is none. */
export function nginxProgram(): string {
	const found = programs.find((path) => existsSync(path));
	if (!found) throw new Error('no nginx: scripts/machine.sh, need_nginx');
	return found;
}

export interface Nginx {
	readonly origin: string;
	/** A second server of the same nginx, that gives the files of a folder and nothing else. */
	readonly plain: string;
	stop(): Promise<void>;
}

interface Behind {
	/** Ports of the web servers. */
	readonly ports: readonly number[];
	/** The port of nginx itself, where somebody has to know it beforehand. */
	readonly port?: number;
	/** Folder of the store. */
	readonly files: string;
	/** Folder that is given as it is. */
	readonly folder: string;
	/** Where nginx keeps what it needs. */
	readonly at: string;
	/** Certificate and key: https then, else http. */
	readonly tls?: { readonly certificate: string; readonly key: string };
}

/** Puts one thing in place of another that has to be there. */
const instead = (text: string, from: RegExp, to: string): string => {
	if (!from.test(text)) throw new Error(`operating/nginx.conf has no ${String(from)}`);
	return text.replace(from, () => to);
};

/** Starts nginx in front of web servers, with the shipped configuration: only addresses, folders and certificates are others. */
export async function startNginx({ ports, port: given, files, folder, at, tls }: Behind): Promise<Nginx> {
	const [port, plainPort] = [given ?? (await freePort()), await freePort()];
	let site = readFileSync('operating/nginx.conf', 'utf8');
	site = instead(site, /server 127\.0\.0\.1:4173 /, ports.map((one) => `server 127.0.0.1:${one} `).join('max_fails=0;\n\t'));
	site = instead(site, /server \{\n\tlisten 80;[\s\S]*?\n\}\n/, '');
	site = instead(site, /listen 443 ssl http2;\n\tlisten \[::\]:443 ssl http2;/, `listen 127.0.0.1:${port}${tls ? ' ssl http2' : ''};`);
	site = instead(site, /ssl_certificate .*\n\tssl_certificate_key .*\n/, tls ? `ssl_certificate ${tls.certificate};\n\tssl_certificate_key ${tls.key};\n` : '');
	site = instead(site, /alias .*;/, `alias ${resolve(files)}/;`);
	// the port stands in no address that is looked at elsewhere
	site = instead(site, /proxy_set_header Host \$host;/, 'proxy_set_header Host $http_host;');
	mkdirSync(at, { recursive: true });
	const scratch = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map((name) => `${name}_temp_path ${join(at, name)};`).join(' ');
	writeFileSync(
		join(at, 'nginx.conf'),
		`daemon off; pid ${join(at, 'pid')}; error_log stderr warn; worker_processes 2; ${process.getuid?.() === 0 ? 'user root;' : ''}
events { worker_connections 1024; }
http { access_log off; ${scratch} types { application/pdf pdf; } default_type application/octet-stream; keepalive_requests 100000000;
${site}
server { listen 127.0.0.1:${plainPort}; sendfile on; tcp_nopush on; root ${resolve(folder)}; } }
`
	);
	const child = spawn(nginxProgram(), ['-p', at, '-e', 'stderr', '-c', join(at, 'nginx.conf')], { stdio: ['ignore', 'ignore', 'pipe'] });
	let said = '';
	child.stderr.on('data', (text: Buffer) => (said += text.toString()));
	const ended = new Promise<void>((done) => child.once('exit', () => done()));
	const plain = `http://127.0.0.1:${plainPort}`;
	for (let tries = 0; ; tries++) {
		if (await fetch(plain).catch(() => null)) break;
		if (tries > 100 || child.exitCode !== null) throw new Error(`nginx does not answer: ${said}`);
		await new Promise((go) => setTimeout(go, 50));
	}
	return {
		origin: `${tls ? 'https' : 'http'}://127.0.0.1:${port}`,
		plain,
		stop: async () => {
			child.kill('SIGQUIT');
			await ended;
		}
	};
}
