// Staff: who they are, inviting, roles, closing an account with everything handed over. Owners change, editors look.
import { fail, type RequestEvent } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import type { Actions, PageServerLoad } from './$types';
import { IanuaError } from '#core/errors';
import { fieldsOf } from '$lib/server/http/form';
import { owner, staff } from '$lib/server/guard/guard';
import { closeStaff, invitationDays, inviteStaff, listStaff, setRole, withdrawInvitation } from '$lib/server/people/staff';
import type { Person } from '$lib/server/people/who';
import { compile } from '$lib/server/validate';

export const load: PageServerLoad = async (event) => {
	const { id: self, role } = staff(event);
	event.depends('ianua:people');
	return { ...(await listStaff()), owner: role === 'owner', self, invitationDays };
};

const role = Type.Union([Type.Literal('owner'), Type.Literal('editor')]);
const Id = Type.String({ format: 'uuid' });
const checkInvite = compile(Type.Object({ name: Line(120), email: Type.String({ format: 'email', maxLength: 320 }), role }));
const checkRole = compile(Type.Object({ id: Id, role }));
const checkClose = compile(Type.Object({ id: Id, to: Id }));

/** Runs an owner's action on a checked form; refusals come back as their sentence. */
async function act<V, R>(
	event: RequestEvent,
	check: (value: unknown) => { ok: true; value: V } | { ok: false; detail: string },
	work: (value: V, actor: Person) => Promise<R>
) {
	const person = owner(event);
	const result = check(await fieldsOf(event.request));
	if (!result.ok) return fail(422, { trouble: `Something is not right: ${result.detail}.` });
	try {
		return await work(result.value, person);
	} catch (error) {
		if (error instanceof IanuaError) return fail(error.status, { trouble: error.message });
		throw error;
	}
}

export const actions: Actions = {
	invite: (event) =>
		act(event, checkInvite, async (given, actor) => {
			const { address, mailed } = await inviteStaff(given, actor);
			return mailed
				? { done: `${given.name} has mail: an invitation to ${given.email}.` }
				: address
					? { done: `No mail is set up. Hand this address to ${given.name} yourself; it is not shown again.`, address }
					: { trouble: `The mail to ${given.email} was not taken. Look at the mail server, then invite ${given.name} again.` };
		}),
	role: (event) =>
		act(event, checkRole, async (given, actor) => {
			await setRole(given.id, given.role, actor.id);
			return { done: 'The role is changed.' };
		}),
	withdraw: (event) =>
		act(event, compile(Type.Object({ id: Id })), async (given) => {
			await withdrawInvitation(given.id);
			return { done: 'The invitation is withdrawn.' };
		}),
	close: (event) =>
		act(event, checkClose, async (given, actor) => {
			await closeStaff(given.id, given.to, actor.id);
			return { done: 'The account is closed, and what it had begun is handed over.' };
		})
};
