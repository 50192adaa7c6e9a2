// Staff: who they are, inviting, roles, closing an account with everything handed over. Owners change, editors look.
import { fail, type RequestEvent } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import type { Actions, PageServerLoad } from './$types';
import { IanuaError } from '#core/errors';
import { closeStaff, invitationDays, inviteStaff, listStaff, setRole, withdrawInvitation } from '$lib/server/people/staff';
import { compile } from '$lib/server/validate';

export const load: PageServerLoad = async ({ locals }) => ({
	...(await listStaff()),
	owner: locals.caller.person!.role === 'owner',
	self: locals.caller.person!.id,
	invitationDays
});

const role = Type.Union([Type.Literal('owner'), Type.Literal('editor')]);
const id = Type.String({ format: 'uuid' });
const checkInvite = compile(
	Type.Object({ name: Type.String({ minLength: 1, maxLength: 120, pattern: '\\S' }), email: Type.String({ format: 'email', maxLength: 320 }), role })
);
const checkRole = compile(Type.Object({ id, role }));
const checkClose = compile(Type.Object({ id, to: id }));

/** Runs an owner's action on a checked form; refusals come back as their sentence. */
async function act<V, R>(
	{ request, locals }: RequestEvent,
	check: (value: unknown) => { ok: true; value: V } | { ok: false; detail: string },
	work: (value: V, actor: string) => Promise<R>
) {
	const person = locals.caller.person!;
	if (person.role !== 'owner') return fail(403, { trouble: 'Only an owner may change who is on the staff.' });
	const result = check(Object.fromEntries((await request.formData()).entries()));
	if (!result.ok) return fail(422, { trouble: `Something is not right: ${result.detail}.` });
	try {
		return await work(result.value, person.id);
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
				: { done: `No mail could be sent. Hand this address to ${given.name} yourself; it is not shown again.`, address };
		}),
	role: (event) =>
		act(event, checkRole, async (given, actor) => {
			await setRole(given.id, given.role, actor);
			return { done: 'The role is changed.' };
		}),
	withdraw: (event) =>
		act(event, compile(Type.Object({ id })), async (given) => {
			await withdrawInvitation(given.id);
			return { done: 'The invitation is withdrawn.' };
		}),
	close: (event) =>
		act(event, checkClose, async (given, actor) => {
			await closeStaff(given.id, given.to, actor);
			return { done: 'The account is closed, and what it had begun is handed over.' };
		})
};
