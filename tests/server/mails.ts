// Mails that the server has sent, read from the stand-in mailbox.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readMail, type KeptMail } from '#server/mail/postbox';
import { until } from './help';
import { given } from './given';

export const mails = (): KeptMail[] => {
	const folder = given.mail;
	return readdirSync(folder)
		.filter((n) => n.endsWith('.eml'))
		.sort()
		.map((n) => readMail(n, readFileSync(join(folder, n), 'latin1')));
};

/** The newest mail to an address, once there is one that fits. */
export const mailTo = (address: string, subject = /./): Promise<KeptMail> =>
	until(() => Promise.resolve(mails().findLast((m) => m.to.includes(address) && subject.test(m.subject))));

export const linkIn = (mail: KeptMail): string => /https?:\/\/\S+/.exec(mail.text)![0];
