// The first visit to an empty site: the code that the start printed, the owner's name, address and password, the site's name and time zone.
import { fail, redirect } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import type { Actions, PageServerLoad } from './$types';
import { IanuaError } from '#core/errors';
import { fieldsOf } from '$lib/server/http/form';
import { takeCookies } from '$lib/server/http/cookies';
import { auth, passwordLength } from '$lib/server/people/auth';
import { countTry } from '$lib/server/people/attempts';
import { dropBeginCode, isBeginCode } from '$lib/server/people/begin';
import { hasOwner, makeFirstOwner } from '$lib/server/people/directory';
import { isZone } from '$lib/server/site/site';
import { zones } from '$lib/server/site/zones';
import { compile } from '$lib/server/validate';

export const load: PageServerLoad = async () => {
	if (await hasOwner()) redirect(303, '/');
	return { zones: zones(), passwordLength };
};

const check = compile(
	Type.Object({
		code: Type.String({ minLength: 1, maxLength: 40 }),
		site: Line(120),
		zone: Type.String(),
		name: Line(120),
		email: Type.String({ format: 'email', maxLength: 320 }),
		password: Type.String({ minLength: passwordLength.min, maxLength: passwordLength.max })
	})
);

export const actions: Actions = {
	default: async (event) => {
		const { request, cookies } = event;
		const form = await fieldsOf(request);
		const again = { site: form.site, zone: form.zone, name: form.name, email: form.email };
		const result = check(form);
		if (!result.ok) return fail(422, { ...again, trouble: `Something is not right: ${result.detail}.` });
		const { code, site, zone, name, email, password } = result.value;
		if (!isZone(zone)) return fail(422, { ...again, trouble: `“${zone}” is not a time zone.` });
		try {
			await countTry('begin', event.getClientAddress());
			if (!(await isBeginCode(code))) throw new IanuaError('begin-code');
			await makeFirstOwner({ name, email, password }, { name: site.trim(), zone });
		} catch (error) {
			if (error instanceof IanuaError) return fail(error.status, { ...again, trouble: error.message });
			throw error;
		}
		await dropBeginCode();
		takeCookies(await auth().api.signInEmail({ body: { email: email.trim().toLowerCase(), password }, asResponse: true }), cookies);
		redirect(303, '/desk/documents');
	}
};
