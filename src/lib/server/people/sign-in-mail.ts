// The mails by which one signs in or chooses a new password. To an address that nobody has, none goes out, and nobody is told so.
import { sql } from '../db/client';
import { sendMail } from '../mail/send';
import { settings } from '../settings';
import { site } from '../site/site';

/** Minutes for which a mailed link holds. */
export const linkMinutes = 15;

interface Person {
	name: string;
	second_factor: boolean;
}

async function personOf(email: string): Promise<Person | null> {
	const [row] = await sql()<
		Person[]
	>`select name, second_factor from person where email = ${email.trim().toLowerCase()} and not suspended and closed_at is null`;
	return row ?? null;
}

/** A link that signs in once. Who has a second factor signs in with it and the password: a mailbox alone is not enough for them. */
export async function mailLink(email: string, token: string): Promise<void> {
	const person = await personOf(email);
	if (!person) return;
	const { name } = await site();
	const { IANUA_ORIGIN } = settings();
	const text = person.second_factor
		? `you asked for a link to sign in to ${name}. Your account asks for a code besides the password, so no link is given. Sign in here:\n\n${IANUA_ORIGIN}/sign-in\n\nForgotten the password? ${IANUA_ORIGIN}/sign-in/forgotten`
		: `this signs you in to ${name}, once, within ${linkMinutes} minutes:\n\n${IANUA_ORIGIN}/sign-in/link?token=${encodeURIComponent(token)}`;
	await sendMail({ to: email, subject: `Sign in to ${name}`, text: `${person.name},\n\n${text}\n\nIf you did not ask for this, do nothing.\n` });
}

/** The address at which a new password is chosen. */
export async function mailNewPassword(email: string, token: string): Promise<void> {
	const person = await personOf(email);
	if (!person) return;
	const { name } = await site();
	await sendMail({
		to: email,
		subject: `A new password for ${name}`,
		text: `${person.name},\n\nchoose a new password for ${name} here, within ${linkMinutes} minutes:\n\n${settings().IANUA_ORIGIN}/sign-in/new-password?token=${encodeURIComponent(token)}\n\nIf you did not ask for this, do nothing: your password stays as it is.\n`
	});
}
