// What is done to a site from outside it: node build/admin.js backup <folder> | restore <a backup>, each with --data <folder>.
import { parseArgs } from 'node:util';
import { backUp, restore } from '#server/upkeep/backup';

const [verb, ...args] = process.argv.slice(2);
const { values, positionals } = parseArgs({ args, options: { data: { type: 'string', default: './.ianua' } }, allowPositionals: true });
const [folder] = positionals;
if (!folder || (verb !== 'backup' && verb !== 'restore')) {
	console.error('usage: ./backup <folder> [--data ./.ianua]\n       ./restore <a backup> [--data ./.ianua]');
	process.exit(2);
}
try {
	if (verb === 'restore') {
		const { at, files } = await restore({ from: folder, data: values.data, say: console.log });
		console.log(`Restored as of ${at}: ${files.length} files. Start it with ./start --data ${values.data}`);
	} else console.log(`Backed up into ${await backUp({ data: values.data, into: folder, say: console.log })}`);
} catch (error) {
	console.error((error as Error).message);
	process.exit(1);
}
