// Calls to the JSON API from the desk. A refusal comes back as its sentence.

/** What the server said was wrong, in words. */
export class ApiTrouble extends Error {}

/** What is said of a press that failed: the server’s sentence where it gave one. */
export const troubleOf = (error: unknown): string => (error instanceof ApiTrouble ? error.message : 'That did not work.');

export async function call<T>(method: 'GET' | 'POST' | 'PATCH' | 'DELETE', path: string, body?: unknown): Promise<T> {
	let response: Response;
	try {
		response = await fetch(`/api/v1${path}`, {
			method,
			headers: body === undefined ? {} : { 'content-type': 'application/json' },
			body: body === undefined ? undefined : JSON.stringify(body)
		});
	} catch {
		throw new ApiTrouble('The server cannot be reached. Nothing was changed; try again in a moment.');
	}
	const answer = (await response.json().catch(() => ({}))) as T & { title?: string };
	if (!response.ok) throw new ApiTrouble(answer.title ?? `The server answered ${response.status}.`);
	return answer;
}
