// What ./backup and ./restore do once the machine has what it needs.
import { parseArgs } from 'node:util';
import { backUp, restore } from './backup';

const [verb, ...args] = process.argv.slice(2);
const { values, positionals } = parseArgs({ args, options: { data: { type: 'string', default: './.ianua' } }, allowPositionals: true });
const [folder] = positionals;
if (!folder) {
	console.error(verb === 'restore' ? 'usage: ./restore <a backup> [--data ./.ianua]' : 'usage: ./backup <folder> [--data ./.ianua]');
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
