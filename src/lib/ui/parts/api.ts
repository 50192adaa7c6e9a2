// Calls from the desk to the server. A refusal comes back as its sentence; where the session is gone, one signs in in place and the call goes on.
import { signInAgain } from './session.svelte';

/** What the server said was wrong, in words; `code` is the catalogue's. */
export class ApiTrouble extends Error {
	constructor(
		message: string,
		readonly code?: string,
		/** What the error’s sentence was made with. */
		readonly facts: Readonly<Record<string, string | undefined>> = {}
	) {
		super(message);
	}
}

/** What is said of a press that failed: the server’s sentence where it gave one. */
export const troubleOf = (error: unknown): string => (error instanceof ApiTrouble ? error.message : 'That did not work.');

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

function sent(body: unknown): RequestInit {
	if (body === undefined) return {};
	// a form or a file says itself what it is
	if (body instanceof FormData || body instanceof Blob) return { body };
	return { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } };
}

/** A request to one of the desk’s own addresses. Throws `ApiTrouble` with the sentence for whoever pressed. */
export async function request<T>(method: Method, address: string, body?: unknown): Promise<T> {
	let response: Response;
	try {
		response = await fetch(address, { method, ...sent(body) });
	} catch {
		throw new ApiTrouble('The server cannot be reached. Nothing was changed; try again in a moment.');
	}
	const answer = (await response.json().catch(() => ({}))) as T & { title?: string; code?: string; facts?: Record<string, string> };
	if (response.ok) return answer;
	if (answer.code !== 'sign-in') throw new ApiTrouble(answer.title ?? `The server answered ${response.status}.`, answer.code, answer.facts);
	if (!(await signInAgain())) throw new ApiTrouble('You are no longer signed in. Nothing was changed.');
	return request(method, address, body);
}

/** A call to the API. */
export const call = <T>(method: Method, path: string, body?: unknown): Promise<T> => request<T>(method, `/api/v1${path}`, body);
