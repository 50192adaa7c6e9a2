// People and groups: who is here, and adding more.
import { fail } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import type { Actions, PageServerLoad } from './$types';
import { IanuaError } from '#core/errors';
import { passwordLength } from '$lib/server/people/auth';
import { addGroup, addPerson, listGroups, listPeople } from '$lib/server/people/service';
import { compile } from '$lib/server/validate';

const pageLength = 50;

export const load: PageServerLoad = async ({ url }) => {
	const q = url.searchParams.get('who')?.trim() ?? '';
	const group = url.searchParams.get('group') ?? '';
	const page = Math.max(1, Number(url.searchParams.get('page')) || 1);
	const [groups, people] = await Promise.all([listGroups(), listPeople({ q, group, offset: (page - 1) * pageLength, limit: pageLength })]);
	return { groups, people, query: { q, group, page }, pageLength, passwordLength };
};

const day = Type.Union([Type.Literal(''), Type.String({ format: 'date' })]);
const checkPerson = compile(
	Type.Object({
		name: Type.String({ minLength: 1, maxLength: 120, pattern: '\\S' }),
		email: Type.String({ format: 'email', maxLength: 320 }),
		password: Type.String({ minLength: passwordLength.min, maxLength: passwordLength.max }),
		group: Type.String(),
		from: day,
		until: day
	})
);

export const actions: Actions = {
	group: async ({ request, locals }) => {
		const name = String((await request.formData()).get('name') ?? '').trim();
		if (!name) return fail(422, { about: 'group', trouble: 'A group needs a name.' });
		try {
			await addGroup(name.slice(0, 120), locals.caller.person!.id);
		} catch (error) {
			if (error instanceof IanuaError)
				return fail(error.status, { about: 'group', trouble: error.code === 'address-taken' ? `There is a group called “${name}” already.` : error.message });
			throw error;
		}
		return { about: 'group', done: `“${name}” is made.` };
	},
	person: async ({ request, locals }) => {
		const form = Object.fromEntries((await request.formData()).entries()) as Record<string, string>;
		const again = { about: 'person', name: form.name, email: form.email };
		const result = checkPerson(form);
		if (!result.ok) return fail(422, { ...again, trouble: `Something is not right: ${result.detail}.` });
		const { name, email, password, group, from, until } = result.value;
		if (from && until && from > until) return fail(422, { ...again, trouble: 'The membership ends before it begins.' });
		try {
			await addPerson(
				{ name, email, password, role: 'member', memberships: group ? [{ group, from: from || null, until: until || null }] : [] },
				locals.caller.person!.id
			);
		} catch (error) {
			if (error instanceof IanuaError) return fail(error.status, { ...again, trouble: error.message });
			throw error;
		}
		return { about: 'person', done: `${name} can sign in now.` };
	}
};
