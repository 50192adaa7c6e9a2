// Calls from the desk to the server. A refusal comes back as its sentence; where the session is gone, one signs in in place and the call goes on.
import type { Static, TSchema } from '@sinclair/typebox';
import type { Unchanging } from '#core/schema';
import type { Operation } from '$lib/server/http/contract';
import type { Operations } from '$lib/server/http/operations';
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

/** An answer of one of the desk’s own addresses, whatever is in it. Throws `ApiTrouble` with the sentence for whoever pressed. */
async function answered(method: Method, address: string, body?: unknown): Promise<Response> {
	let response: Response;
	try {
		response = await fetch(address, { method, ...sent(body) });
	} catch {
		throw new ApiTrouble('The server cannot be reached. Nothing was changed; try again in a moment.');
	}
	if (response.ok) return response;
	const answer = (await response.json().catch(() => ({}))) as { title?: string; code?: string; facts?: Record<string, string> };
	if (answer.code !== 'sign-in') throw new ApiTrouble(answer.title ?? `The server answered ${response.status}.`, answer.code, answer.facts);
	if (!(await signInAgain())) throw new ApiTrouble('You are no longer signed in. Nothing was changed.');
	return answered(method, address, body);
}

/** A request to one of the desk’s own addresses. Throws `ApiTrouble` with the sentence for whoever pressed. */
export const request = async <T>(method: Method, address: string, body?: unknown): Promise<T> =>
	(await answered(method, address, body)).json().catch(() => ({})) as Promise<T>;

/** A file that the server gives, by the name it says or this one. Throws `ApiTrouble`. */
export async function fileAt(address: string, name: string): Promise<{ name: string; content: Blob }> {
	const answer = await answered('GET', address);
	const said = /filename="([^"]+)"/.exec(answer.headers.get('content-disposition') ?? '')?.[1];
	const content = await answer.blob().catch(() => {
		throw new ApiTrouble('The connection was cut before all of it was here; try again in a moment.');
	});
	return { name: said ?? name, content };
}

type Names<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}` ? Name | Names<Rest> : never;
type Path<One extends Operation> = [Names<One['path']>] extends [never] ? object : { readonly path: Readonly<Record<Names<One['path']>, string>> };
/** A query may be left out where nothing in it must be said. */
type Asked<Fields> = Partial<Fields> extends Fields ? { readonly query?: Fields } : { readonly query: Fields };
type Query<One> = One extends { query: infer Q extends TSchema } ? Asked<Static<Q>> : object;
type Sent<One> =
	| (One extends { body: infer B extends TSchema } ? Unchanging<Static<B>> : never)
	| (One extends { form: unknown } ? FormData : never)
	| (One extends { csv: true } ? Blob : never);
type Body<One> = [Sent<One>] extends [never] ? object : { readonly body: Sent<One> };

type QueryValue = string | number | boolean | undefined;

/** An operation of the API, as `get /documents/{slug}`. */
export type OperationName = keyof Operations;
/** What an operation is called with: what stands in its path, its query and its body. */
export type Given<Name extends OperationName> = Path<Operations[Name]> & Query<Operations[Name]> & Body<Operations[Name]>;
/** What it answers, as its contract says. */
export type Answer<Name extends OperationName> = Operations[Name]['answer'] extends infer A extends TSchema ? Static<A> : undefined;

/** Calls an operation of the API. `call('get /documents/{slug}', { path: { slug } })` gives the document. Throws `ApiTrouble`. */
export function call<Name extends OperationName>(
	name: Name,
	...[given]: object extends Given<Name> ? [given?: Given<Name>] : [given: Given<Name>]
): Promise<Answer<Name>> {
	const {
		path = {},
		query = {},
		body
	} = (given ?? {}) as { path?: Record<string, string>; query?: Record<string, QueryValue | readonly QueryValue[]>; body?: unknown };
	const [method, address] = name.split(' ') as [Lowercase<Method>, string];
	const params = new URLSearchParams(
		Object.entries(query).flatMap(([key, value]) =>
			[value]
				.flat()
				.filter((v) => v !== undefined)
				.map((v) => [key, String(v)])
		)
	);
	const filled = address.replace(/\{(\w+)\}/g, (_, key: string) => encodeURIComponent(path[key] ?? ''));
	return request(method.toUpperCase() as Method, `/api/v1${filled}${params.size ? `?${params}` : ''}`, body);
}
