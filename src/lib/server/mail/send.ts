// Sends mail by SMTP, where IANUA_SMTP_URL says by which server.
import { createTransport, type Transporter } from 'nodemailer';
import { log } from '../log';
import { settings } from '../settings';
import { drop, keepOnce } from '../site/kept';

export interface Mail {
	readonly to: string;
	readonly subject: string;
	readonly text: string;
	/** Where one press ends mails like this one: programs for mail show it as a button (RFC 2369, RFC 8058). */
	readonly end?: string;
}

let transport: Transporter | undefined;

const server = (): Transporter => (transport ??= createTransport(settings().IANUA_SMTP_URL, { from: settings().IANUA_MAIL_FROM }));

/** Whether the server for mail answers and takes what signs us in: null, or what it says in place of that. */
export const mailAnswers = (): Promise<string | null> =>
	server()
		.verify()
		.then(
			() => null,
			(error: unknown) => (error as Error).message
		);

/** Whether this process last knew of trouble; at first it may have been another's. */
let troubled = true;

/** Keeps what the server for mail said when it took none, for owners to see; null once it takes them again. */
async function noteTrouble(said: string | null): Promise<void> {
	if (said === null && !troubled) return;
	troubled = said !== null;
	try {
		if (said === null) await drop('mail-trouble');
		else await keepOnce('mail-trouble', { at: new Date().toISOString(), said: said.slice(0, 300) });
	} catch (err) {
		log().warn({ err }, 'that mail is in trouble could not be kept');
	}
}

/** Sends a mail; false where no mail is set up or the server did not take it. */
export async function sendMail({ end, ...mail }: Mail): Promise<boolean> {
	if (!settings().IANUA_SMTP_URL) return false;
	try {
		const headers = end ? { 'List-Unsubscribe': `<${end}>`, 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' } : {};
		await server().sendMail({ ...mail, headers, disableFileAccess: true, disableUrlAccess: true });
		await noteTrouble(null);
		return true;
	} catch (err) {
		log().warn({ err, subject: mail.subject }, 'mail was not sent');
		// what is wrong with one address or one mail is no trouble of the server for mail
		const { code, message } = err as { code?: string; message: string };
		if (code !== 'EENVELOPE' && code !== 'EMESSAGE') await noteTrouble(message);
		return false;
	}
}
