// What is done to a site from outside it, by whoever runs the machine: ./ianua <what>, or node build/admin.js <what>. Ends with 0 where it was done
// and all is well, 1 where not, 2 where it was asked for in a way that it does not know.
import { randomBytes } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { text } from 'node:stream/consumers';
import { Command, CommanderError } from 'commander';
import packageJson from '../../package.json' with { type: 'json' };
import { sizeWords } from '#core/documents/size';
import { counted } from '#core/text/list';
import { putByDays } from '#core/upkeep/sweep';
import { migrateDatabase } from '#server/db/client';
import { sendMail } from '#server/mail/send';
import { passwordLength } from '#server/people/auth';
import { createOwner, resetOwner } from '#server/people/owner';
import { sumAgain } from '#server/readership/sums/keep';
import { keep } from '#server/site/kept';
import { site } from '#server/site/site';
import { bringBack, putByList } from '#server/store/store';
import { backUp, restore } from '#server/upkeep/backup';
import { exportInto } from '#server/upkeep/export';
import { importCargo, readExport } from '#server/upkeep/import';
import { readFolder } from '#server/upkeep/import-folder';
import { lookOver } from '#server/upkeep/look-over';
import { moveStore } from '#server/upkeep/move-store';
import { asCaller, withSite } from '#server/upkeep/site-at';

/** What was done, as whoever asked wants to read it: sentences, or one JSON value. */
interface Told {
	readonly words: readonly string[];
	readonly facts: Record<string, unknown>;
	/** Whether all is well; not being so ends with 1. */
	readonly well?: boolean;
}

interface Options {
	readonly data: string;
	readonly json?: boolean;
}

const program = new Command('ianua')
	.description('Looks after a site of Ianua from outside it.')
	.version(packageJson.version)
	.configureHelp({ showGlobalOptions: true })
	.showHelpAfterError()
	.exitOverride();

/** Progress goes beside the answer, so that the answer alone can be read by a program. */
const say = (line: string) => console.error(line);

/** A verb: `--data` and `--json` as all have them, and what it does with its arguments and options. */
function verb(
	parent: Command,
	usage: string,
	description: string,
	does: (args: string[], options: Options & Record<string, unknown>) => Promise<Told>
): Command {
	return parent
		.command(usage)
		.description(description)
		.option('--data <folder>', 'the data folder of the site', process.env.IANUA_DATA ?? './.ianua')
		.option('--json', 'answer with one JSON value')
		.action(async (...given: unknown[]) => {
			// commander hands over the arguments, then the options, then the command
			const options = given[given.length - 2] as Options & Record<string, unknown>;
			const { words, facts, well = true } = await does(given.slice(0, -2) as string[], options);
			console.log(options.json ? JSON.stringify(facts) : words.join('\n'));
			if (!well) process.exitCode = 1;
		});
}

/** The password for an owner: from standard input where that is asked for, else one made here, which is told once. */
async function passwordFrom({ passwordStdin }: Record<string, unknown>): Promise<{ password: string; made: boolean }> {
	if (!passwordStdin) return { password: randomBytes(15).toString('base64url'), made: true };
	const password = (await text(process.stdin)).replace(/\r?\n$/, '');
	const { min, max } = passwordLength;
	if (password.length < min || password.length > max) throw new Error(`A password has ${min} to ${max} characters.`);
	return { password, made: false };
}

const owner = program.command('owner').description('makes owners, and lets them in again');
verb(owner, 'create', 'makes an owner; somebody who is here already becomes one', async (_, options) => {
	const [email, name] = [String(options.email), String(options.name)];
	const { password, made } = await passwordFrom(options);
	const known = await withSite(options.data, () => createOwner({ email, name, password }));
	const words = [`${email} owns the site${known ? ' now; they were here already' : ''}.`, ...(made ? [`Their password: ${password}`] : [])];
	return { words, facts: { email, known, ...(made ? { password } : {}) } };
})
	.requiredOption('--email <address>', 'their mail address')
	.requiredOption('--name <name>', 'their name')
	.option('--password-stdin', 'read the password from standard input, in place of making one');
verb(owner, 'reset <email>', 'gives an owner a new password and signs them out everywhere', async ([email = ''], options) => {
	const { password, made } = await passwordFrom(options);
	await withSite(options.data, () => resetOwner(email, password, { factor: Boolean(options.secondFactor) })).catch((error: unknown) => {
		throw (error as { code?: string }).code === 'not-found' ? new Error(`No owner has the address ${email}. ianua owner create makes one.`) : error;
	});
	return {
		words: [`${email} has a new password, and is signed out everywhere.`, ...(made ? [`The password: ${password}`] : [])],
		facts: { email, ...(made ? { password } : {}) }
	};
})
	.option('--password-stdin', 'read the password from standard input, in place of making one')
	.option('--second-factor', 'take their second factor away too, for who has lost it');

verb(
	program,
	'check',
	'looks over all that the site stands on: versions, database, clock, store, checksums of all files, mail, room, backup',
	async (_, options) => {
		const parts = await withSite(options.data, () => lookOver({ checksums: options.checksums !== false, say }));
		const signs = { yes: 'well   ', look: 'look   ', no: 'WRONG  ' } as const;
		return {
			words: parts.map(({ part, well, words }) => `${signs[well]}${part.padEnd(10)}${words}`),
			facts: { well: parts.every(({ well }) => well !== 'no'), parts },
			well: parts.every(({ well }) => well !== 'no')
		};
	}
).option('--no-checksums', 'leave the files as they are: their bytes are not read');

const mail = program.command('mail').description('the mail that the site sends');
verb(mail, 'test <address>', 'sends a mail to an address', async ([to = ''], options) => {
	const sent = await withSite(options.data, async () => {
		const { name } = await site();
		return sendMail({ to, subject: `${name} sends mail`, text: `This is a trial. ${name} can send mail to you.\n` });
	});
	return {
		words: [sent ? `Sent to ${to}.` : 'It was not sent: no mail is set up (IANUA_SMTP_URL), or its server did not take it.'],
		facts: { to, sent },
		well: sent
	};
});

verb(program, 'backup <folder>', 'backs the site up into a new folder below the one named, while it runs', async ([into = ''], { data }) => {
	const folder = await withSite(data, async () => {
		const made = await backUp({ data, into, say });
		await keep('backed-up', { at: new Date().toISOString() });
		return made;
	});
	return { words: [`Backed up into ${folder}`], facts: { folder } };
});
verb(program, 'restore <backup>', 'puts a backup back into a data folder that is empty', async ([from = ''], { data }) => {
	const { at, files } = await restore({ from, data, say });
	return { words: [`Restored as of ${at}: ${files.length} files. Start it with ./start --data ${data}`], facts: { at, files: files.length } };
});

verb(program, 'export <folder>', 'writes the whole site into a new folder, in open formats: PDFs, JSON lines, tables', async ([given = ''], { data }) => {
	const folder = resolve(given);
	if (existsSync(folder) && readdirSync(folder).length) throw new Error(`${folder} is not empty. Name a new folder, so that nothing is lost.`);
	const { files, bytes } = await withSite(data, () => exportInto(folder, say));
	return { words: [`Written into ${folder}: ${files} files, ${sizeWords(bytes)}. README.txt in it says what they are.`], facts: { folder, files, bytes } };
});
verb(
	program,
	'import <folder>',
	'takes a site in that was exported, or a folder of PDFs with a table (CSV) about them, beside what is there',
	async ([folder = ''], { data, look, table }) => {
		const { fresh, here, settings, notes, done } = await withSite(
			data,
			async () =>
				importCargo(
					asCaller(() => existsSync(join(folder, 'export.json'))) ? await readExport(folder) : await readFolder(folder, table as string | undefined),
					{
						look: Boolean(look),
						say
					}
				),
			{ writes: true }
		);
		const parts = Object.entries(fresh).flatMap(([part, n]) => (n ? [`${n} ${part === 'ledger' ? 'entries of the ledger' : part}`] : []));
		return {
			words: [
				`${done ? 'Taken in' : 'It would take in'}: ${parts.length ? parts.join(', ') : 'nothing'}${settings ? ', and the settings' : ''}.`,
				...(here
					? [`${counted(here, 'document is', 'documents are')} here already, and ${done ? 'stayed' : 'would stay'} as ${here === 1 ? 'it is' : 'they are'}.`]
					: []),
				...notes
			],
			facts: { fresh, here, settings, notes, done }
		};
	}
)
	.option('--look', 'only say what it would change')
	.option('--table <file>', 'the table about a folder of PDFs, where it has several');

const sums = program.command('sums').description('the sums that reports are made of');
verb(sums, 'rebuild', 'makes all sums anew from the entries', async (_, { data }) => {
	const began = Date.now();
	await withSite(data, sumAgain);
	const seconds = Math.round((Date.now() - began) / 1000);
	return { words: [`All sums were made anew in ${seconds} s.`], facts: { seconds } };
});

verb(program, 'migrate', 'brings the database up to date, as the next start would', async (_, { data }) => {
	await withSite(data, () => migrateDatabase());
	return { words: ['The database is as this version wants it.'], facts: { version: packageJson.version } };
});

const store = program.command('store').description('where files lie');
verb(
	store,
	'move <from> <to>',
	'copies the store to another place, a folder or s3://bucket/prefix, and switches to it once no server runs',
	async ([from = '', to = ''], { data }) => {
		// before the site's own settings are taken: whoever starts its servers has the same environment
		const said = Boolean(process.env.IANUA_FILES);
		const moved = await withSite(data, () => moveStore(from, to, { said, say }), { writes: true });
		const next = {
			running: 'The site runs, and goes on with the old place. Stop it and do this again: only what is new is left to copy, and then it switches.',
			environment: `Set IANUA_FILES=${moved.place} where the settings of the servers stand: the environment comes before ${data}/settings.`
		};
		return {
			words: [
				`${moved.copied} files copied, ${moved.bytes} bytes; every checksum is right.`,
				moved.why ? next[moved.why] : `The site uses ${moved.place} from its next start on (written into ${data}/settings). The old place is as it was.`
			],
			facts: { ...moved }
		};
	}
);

const putBy = program.command('put-by').description(`files that no document points to: kept ${putByDays} days`);
verb(putBy, 'list', 'lists them', async (_, { data }) => {
	const items = await withSite(data, putByList);
	return {
		words: items.length ? items.map(({ name, day, bytes }) => `${day}  ${String(bytes).padStart(12)}  ${name}`) : ['Nothing is put by.'],
		facts: { items }
	};
});
verb(putBy, 'restore <sha256>', 'brings one back; the next sweep puts it by again where no document points to it', async ([sha256 = ''], { data }) => {
	const back = await withSite(
		data,
		async () => {
			const found = (await putByList()).find(({ name }) => name === sha256);
			if (found) await bringBack(sha256, found.day);
			return found !== undefined;
		},
		{ writes: true }
	);
	return { words: [back ? 'It is back in the store.' : 'Nothing of that name is put by.'], facts: { sha256, back }, well: back };
});

try {
	await program.parseAsync();
} catch (error) {
	if (error instanceof CommanderError) process.exitCode = error.exitCode === 0 ? 0 : 2;
	else {
		console.error(process.env.IANUA_LOG === 'debug' ? (error as Error).stack : (error as Error).message);
		process.exitCode = 1;
	}
}
