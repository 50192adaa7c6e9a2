// People and groups: who is here, one of them in the sheet, and adding more.
import { error, fail } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import { wholeNumber } from '#core/text/number';
import type { Actions, PageServerLoad } from './$types';
import { dayOf } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { fieldsOf } from '$lib/server/http/form';
import { staff } from '$lib/server/guard/guard';
import { countKnocks } from '$lib/server/access/knocks';
import { openDocumentsFor } from '$lib/server/documents/readable';
import { hashPassword, passwordLength } from '$lib/server/people/auth';
import { addMember, groupUse, inviteMember, memberView } from '$lib/server/people/members';
import { addGroup, countStandings, listGroups, listPeople, standings } from '$lib/server/people/directory';
import { personAt } from '$lib/server/people/who';
import { site } from '$lib/server/site/site';
import { compile } from '$lib/server/validate';

const pageLength = 50;

/** The member of the sheet, with what they may open. */
async function chosenOf(id: string) {
	try {
		const member = await memberView(id);
		const caller = await personAt(member.email);
		return { member, opens: caller ? (await openDocumentsFor(caller)).map(({ slug, title }) => ({ slug, title })) : [] };
	} catch (refusal) {
		if (refusal instanceof IanuaError) error(refusal.status, { code: refusal.code, message: refusal.message });
		throw refusal;
	}
}

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:people');
	const { url } = event;
	const q = url.searchParams.get('who')?.trim().slice(0, 200) ?? '';
	const group = url.searchParams.get('group') ?? '';
	const standing = standings.find((s) => s === url.searchParams.get('standing'));
	const page = wholeNumber(url.searchParams.get('page'), 1, { most: 1_000_000 });
	const chosen = url.searchParams.get('person');
	const [groups, people, counts, knocks, sheet, { zone }] = await Promise.all([
		listGroups(),
		listPeople({ q, group, standing, offset: (page - 1) * pageLength, limit: pageLength }),
		countStandings(),
		countKnocks(),
		chosen ? chosenOf(chosen) : null,
		site()
	]);
	const inGroup = groups.find((g) => g.slug === group) ?? null;
	return {
		groups,
		people,
		standings: counts,
		knocks,
		chosen: sheet,
		group: inGroup && { ...inGroup, use: await groupUse(inGroup.slug) },
		query: { q, group, standing: standing ?? '', page },
		pageLength,
		passwordLength,
		zone,
		today: dayOf(Date.now(), zone)
	};
};

const invitedWords = (name: string, email: string, mailed: boolean, address: string | null) =>
	mailed
		? `An invitation is on its way to ${email}.`
		: address
			? `No mail is set up here. Give ${name} this address: ${address}`
			: `${name} is a member now, but no invitation could be mailed. Once mail is set up, invite them again.`;

const day = Type.Union([Type.Literal(''), Type.String({ format: 'date' })]);
const checkPerson = compile(
	Type.Object({
		name: Line(120),
		email: Type.String({ format: 'email', maxLength: 320 }),
		password: Type.Union([Type.Literal(''), Type.String({ minLength: passwordLength.min, maxLength: passwordLength.max })]),
		group: Type.String(),
		from: day,
		until: day
	})
);

export const actions: Actions = {
	group: async (event) => {
		const { id: actor } = staff(event);
		const name = ((await fieldsOf(event.request))['name'] ?? '').trim();
		if (!name) return fail(422, { about: 'group', trouble: 'A group needs a name.' });
		try {
			await addGroup(name.slice(0, 120), actor);
		} catch (error) {
			if (error instanceof IanuaError)
				return fail(error.status, { about: 'group', trouble: error.code === 'address-taken' ? `There is a group called “${name}” already.` : error.message });
			throw error;
		}
		return { about: 'group', done: `“${name}” is made.` };
	},
	person: async (event) => {
		const person = staff(event);
		const form = await fieldsOf(event.request);
		const again = { about: 'person', name: form.name, email: form.email };
		const result = checkPerson(form);
		if (!result.ok) return fail(422, { ...again, trouble: `Something is not right: ${result.detail}.` });
		const { name, email, password, group, from, until } = result.value;
		try {
			const memberships = group ? [{ group, from: from || null, until: until || null }] : [];
			const id = await addMember({ name, email, password: password ? await hashPassword(password) : null, memberships }, person.id);
			if (password) return { about: 'person', done: `${name} can sign in now.` };
			const { mailed, address } = await inviteMember(id, person);
			return { about: 'person', done: invitedWords(name, email, mailed, address) };
		} catch (error) {
			if (error instanceof IanuaError) return fail(error.status, { ...again, trouble: error.message });
			throw error;
		}
	}
};
