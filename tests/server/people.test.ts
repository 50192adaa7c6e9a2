// Staff: invited by mail, and closed with everything handed over.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, inject, it } from 'vitest';
import { member, origin, pdf, send, signIn, staff, until, visitor } from './help';
import { acceptInvitation, closeStaff, inviteStaff, listStaff, setRole } from '#server/people/staff';
import { sql } from '#server/db/client';

const mail = inject('mail');
/** The address in the newest mail to somebody. */
const mailed = (to: string) =>
	until(async () => {
		const texts = readdirSync(mail).map((name) => readFileSync(join(mail, name), 'utf8').replace(/=\r?\n/g, ''));
		const text = texts.find((t) => t.includes(`To: ${to}`));
		return Promise.resolve(/https?:\/\/\S+\/invite\/([\w-]+)/.exec(text ?? '')?.[1] ?? null);
	});

describe('staff accounts', () => {
	it('are invited by mail, taken up once, and may then do what their role allows', async () => {
		const boss = await staff();
		const form = { name: 'Edie Editor', email: 'edie@example.org', role: 'editor' };
		const invited = await fetch(`${origin}/desk/people/staff?/invite`, {
			method: 'POST',
			headers: { ...boss.headers, origin, accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' },
			body: new URLSearchParams(form)
		});
		expect(invited.status).toBe(200);
		const token = await mailed('edie@example.org');
		expect(await (await visitor().get(`/invite/${token}`)).text()).toContain('edie@example.org');
		await acceptInvitation(token, { name: 'Edie Editor', password: 'a-password-for-tests' });
		expect((await visitor().get(`/invite/${token}`)).status).toBe(410);
		await expect(acceptInvitation(token, { name: 'Again', password: 'a-password-for-tests' })).rejects.toMatchObject({ code: 'invitation-over' });
		const editor = await signIn('edie@example.org');
		expect((await editor.get('/desk/documents')).status).toBe(200);
		const refused = await fetch(`${origin}/desk/people/staff?/invite`, {
			method: 'POST',
			headers: { ...editor.headers, origin, accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' },
			body: new URLSearchParams({ ...form, email: 'other@example.org' })
		});
		expect(refused.status).toBe(403);
	});
	it('closing one hands over what it began; documents stay open, sessions and tokens end at once', async () => {
		const boss = await staff();
		const [owner] = await sql()<{ id: string }[]>`select id from person where email = 'olive@example.org'`;
		const { address } = await inviteStaff({ name: 'Lea Leaving', email: 'lea@example.org', role: 'editor' }, owner!.id);
		await acceptInvitation(address.split('/').pop()!, { name: 'Lea Leaving', password: 'a-password-for-tests' });
		const lea = await signIn('lea@example.org');
		const made = (await (await send(await pdf('Begun by Lea'), 'lea.pdf', {}, Promise.resolve(lea))).json()) as { slug: string };
		await lea.api('PATCH', `/documents/${made.slug}`, { door: { position: 'open' } });
		const { token } = await lea.api<{ token: string }>('POST', '/tokens', { label: 'Lea’s' });
		const { id } = (await listStaff()).staff.find((p) => p.email === 'lea@example.org')!;
		await closeStaff(id, owner!.id, owner!.id);
		expect((await lea.get('/desk/documents')).status).toBe(303);
		expect((await fetch(`${origin}/api/v1/documents`, { headers: { authorization: `Bearer ${token}` } })).status).toBe(401);
		const again = await signIn('lea@example.org').catch(() => null);
		expect(again === null ? 303 : (await again.get('/desk/documents')).status).toBe(303);
		expect((await visitor().get(`/d/${made.slug}/file`)).status).toBe(200);
		const [row] = await sql()<{ created_by: string }[]>`select created_by from document where slug = ${made.slug}`;
		expect(row!.created_by).toBe(owner!.id);
		void boss;
	});
	it('a site keeps an owner; a member may be invited to the staff, staff not twice', async () => {
		await staff();
		const [owner] = await sql()<{ id: string }[]>`select id from person where email = 'olive@example.org'`;
		await expect(setRole(owner!.id, 'editor', owner!.id)).rejects.toMatchObject({ code: 'last-owner' });
		await expect(inviteStaff({ name: 'Olive', email: 'Olive@example.org', role: 'editor' }, owner!.id)).rejects.toMatchObject({ code: 'email-taken' });
		const reader = await member({ group: 'Risers' });
		const { address } = await inviteStaff({ name: 'Riser', email: reader.email, role: 'editor' }, owner!.id);
		await acceptInvitation(address.split('/').pop()!, { name: 'Riser', password: 'a-password-for-tests' });
		expect((await (await signIn(reader.email)).get('/desk/documents')).status).toBe(200);
	});
});
