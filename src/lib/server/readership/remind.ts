// Reminders to those who may open a document and have not: by mail, to each at most once a day, each an entry in the ledger.
import { Type, type Static } from '@sinclair/typebox';
import { counted } from '#core/text/list';
import { IanuaError } from '#core/errors';
import { isAwaited } from '#core/readership/receipt';
import { documentView } from '../documents/view';
import { sql } from '../db/client';
import { sendMail } from '../mail/send';
import { enterMailed } from '../reading/writer';
import { settings } from '../settings';
import { site } from '../site/site';
import { reported } from './reported';
import { rollCall, type RollLine } from './reports/document';
import { sumUp } from './sums/keep';

export const Reminding = Type.Object(
	{
		/** Only of this group, by its slug; all whom the door admits otherwise. */
		group: Type.Optional(Type.Union([Type.Null(), Type.String({ maxLength: 200 })])),
		/** Those who have not read it through, too. */
		unfinished: Type.Optional(Type.Boolean())
	},
	{ additionalProperties: false }
);

const dayMs = 86_400_000;
const lock = 4_173_008;

/** Whether somebody may be reminded again: not within a day of the last time. */
const isDue = (line: RollLine, now: number) => !line.reminded || now - Date.parse(line.reminded) >= dayMs;

/** What is missing of somebody, in words to them. */
function missingWords({ standing, earlier }: RollLine): string {
	if (standing === 'through') return 'you have not yet said that you have read it';
	if (standing === 'opened') return 'you have not yet read it through';
	return earlier ? 'there is a new edition' : 'you have not opened it yet';
}

/**
 * Mails a reminder to those of the roll who have not opened the edition in force; where the document asks for a receipt, to all who have given none. Gives how many it went to, how many were reminded
 * within the last day and left alone, and to how many it could not be sent. Throws `not-found`, and `not-valid` where anyone may open it.
 */
export async function remind(
	slug: string,
	asked: Static<typeof Reminding>,
	actor: { readonly name: string }
): Promise<{ mailed: number; recently: number; failed: number }> {
	const view = await documentView(slug);
	if (!view || view.goneAt) throw new IanuaError('not-found');
	if (view.door.inForce !== 'keyed') throw new IanuaError('not-valid', { detail: 'anyone may open this document, so nobody in particular can be reminded' });
	await sumUp();
	const [{ name }, document] = await Promise.all([site(), reported(view)]);
	const address = `${settings().IANUA_ORIGIN}/d/${view.slug}/read`;
	return sql().begin(async (tx) => {
		// one round at a time: of two presses at once, the second finds everybody reminded
		await tx`select pg_advisory_xact_lock(${lock}, hashtext(${view.id}))`;
		const now = Date.now();
		const wanted = (await rollCall(document, tx)).filter(
			(line) =>
				isAwaited(line.standing, { asks: document.receipt !== null, unfinished: asked.unfinished === true }) &&
				(!asked.group || line.groups.some((g) => g.slug === asked.group))
		);
		const due = wanted.filter((line) => isDue(line, now));
		let mailed = 0;
		for (const line of due) {
			const words = missingWords(line);
			const sent = await sendMail({
				to: line.email,
				subject: `${view.title}: please read`,
				text: `${line.name},\n\n${actor.name} asks you to read “${view.title}” (${counted(view.pages, 'page', 'pages')})${document.receipt ? ' and to say that you have' : ''}: ${words}.\n\n${address}\n\n${name}\n`
			});
			if (!sent) continue;
			await enterMailed(tx, 'reminded', { document: document.id, edition: document.edition.id, person: line.id });
			mailed++;
		}
		return { mailed, recently: wanted.length - due.length, failed: due.length - mailed };
	});
}
