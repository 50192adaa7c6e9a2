// The form that a request carries.
import { error } from '@sveltejs/kit';

/** The fields of a form; one that was cut short or is no form is refused in words, never a fault of ours. */
export async function formOf(request: Request): Promise<FormData> {
	try {
		return await request.formData();
	} catch {
		error(400, { code: 'not-valid', message: 'The form did not arrive whole. Send it again.' });
	}
}

/** The same with its text fields alone, by their names; files are left out. */
export async function fieldsOf(request: Request): Promise<Record<string, string>> {
	return Object.fromEntries([...(await formOf(request)).entries()].flatMap(([name, value]) => (typeof value === 'string' ? [[name, value]] : [])));
}

/** Whether a body is a form as a page without script sends it (URL standard, application/x-www-form-urlencoded). */
export const isPlainForm = ({ headers }: Request): boolean => /^application\/x-www-form-urlencoded\b/i.test(headers.get('content-type') ?? '');
