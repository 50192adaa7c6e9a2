// Owners as whoever runs the machine makes them, or lets them in again: without a mail, and without anybody who is signed in.
import { eq } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { db } from '../db/client';
import { passkey, person, secondFactor, session } from '../db/schema';
import { writeAudit } from '../site/audit';
import { hashPassword } from './auth';
import { dropBeginCode } from './begin';
import { insertPerson } from './directory';
import { setPassword } from './staff';

/** Makes an owner; somebody who is here already becomes one, with this password. Gives whether they were here. */
export async function createOwner(given: { readonly name: string; readonly email: string; readonly password: string }): Promise<boolean> {
	const password = await hashPassword(given.password);
	const email = given.email.trim().toLowerCase();
	const known = await db().transaction(async (tx) => {
		const [there] = await tx.select({ id: person.id }).from(person).where(eq(person.email, email)).for('update');
		if (!there) {
			await insertPerson(tx, { name: given.name, email, password, role: 'owner' }, null);
			return false;
		}
		await tx.update(person).set({ role: 'owner', suspended: false, closedAt: null, emailVerified: true }).where(eq(person.id, there.id));
		await setPassword(tx, there.id, password);
		await tx.delete(session).where(eq(session.userId, there.id));
		await writeAudit(tx, { actor: null, action: 'changed', kind: 'person', thing: there.id, after: { role: 'owner', password: true } });
		return true;
	});
	await dropBeginCode();
	return known;
}

/**
 * Gives an owner a new password and opens their account; whoever was signed in as them is no longer, and their passkeys sign nobody in. `factor`:
 * their second factor goes too, for who has lost it. Throws `not-found` where no owner has the address.
 */
export async function resetOwner(email: string, given: string, { factor }: { readonly factor: boolean }): Promise<void> {
	const password = await hashPassword(given);
	await db().transaction(async (tx) => {
		const [there] = await tx.select({ id: person.id, role: person.role }).from(person).where(eq(person.email, email.trim().toLowerCase())).for('update');
		if (there?.role !== 'owner') throw new IanuaError('not-found');
		await tx
			.update(person)
			.set({ suspended: false, closedAt: null, ...(factor ? { twoFactorEnabled: false } : {}) })
			.where(eq(person.id, there.id));
		if (factor) await tx.delete(secondFactor).where(eq(secondFactor.userId, there.id));
		await tx.delete(passkey).where(eq(passkey.userId, there.id));
		await setPassword(tx, there.id, password);
		await tx.delete(session).where(eq(session.userId, there.id));
		await writeAudit(tx, {
			actor: null,
			action: 'changed',
			kind: 'person',
			thing: there.id,
			after: { password: true, ...(factor ? { secondFactor: false } : {}) }
		});
	});
}
