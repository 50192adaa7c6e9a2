// Sends mail by SMTP, where IANUA_SMTP_URL says by which server.
import { createTransport, type Transporter } from 'nodemailer';
import { log } from '../log';
import { settings } from '../settings';

export interface Mail {
	readonly to: string;
	readonly subject: string;
	readonly text: string;
	/** Where one press ends mails like this one: programs for mail show it as a button (RFC 2369, RFC 8058). */
	readonly end?: string;
}

let transport: Transporter | undefined;

/** Sends a mail; false where no mail is set up or the server did not take it. */
export async function sendMail({ end, ...mail }: Mail): Promise<boolean> {
	const { IANUA_SMTP_URL, IANUA_MAIL_FROM } = settings();
	if (!IANUA_SMTP_URL) return false;
	try {
		transport ??= createTransport(IANUA_SMTP_URL, { from: IANUA_MAIL_FROM });
		const headers = end ? { 'List-Unsubscribe': `<${end}>`, 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' } : {};
		await transport.sendMail({ ...mail, headers, disableFileAccess: true, disableUrlAccess: true });
		return true;
	} catch (err) {
		log().warn({ err, subject: mail.subject }, 'mail was not sent');
		return false;
	}
}
