// Sends mail by SMTP, where IANUA_SMTP_URL says by which server.
import { createTransport, type Transporter } from 'nodemailer';
import { log } from '../log';
import { settings } from '../settings';

export interface Mail {
	readonly to: string;
	readonly subject: string;
	readonly text: string;
}

let transport: Transporter | undefined;

/** Sends a mail; false where no mail is set up or the server did not take it. */
export async function sendMail(mail: Mail): Promise<boolean> {
	const { IANUA_SMTP_URL, IANUA_MAIL_FROM } = settings();
	if (!IANUA_SMTP_URL) return false;
	try {
		transport ??= createTransport(IANUA_SMTP_URL, { from: IANUA_MAIL_FROM });
		await transport.sendMail({ ...mail, disableFileAccess: true, disableUrlAccess: true });
		return true;
	} catch (err) {
		log().warn({ err, subject: mail.subject }, 'mail was not sent');
		return false;
	}
}
