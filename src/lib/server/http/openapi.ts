// The API's description of itself, made of its operations.
import { Type, type TSchema } from '@sinclair/typebox';
import examples from './examples.json' with { type: 'json' };
import { operations } from './operations';

const Problem = Type.Object(
	{
		type: Type.String(),
		title: Type.String({ description: 'a sentence for a person' }),
		status: Type.Integer(),
		code: Type.String({ description: 'the catalogue’s code' }),
		facts: Type.Optional(Type.Record(Type.String(), Type.String())),
		requestId: Type.Optional(Type.String())
	},
	{ description: 'RFC 9457' }
);

/** What was asked of an operation and what it answered, in the demo (scripts/examples.ts). */
export interface Example {
	readonly body?: unknown;
	readonly answer?: unknown;
}

/** What stands in the braces of an address, by what it begins with. */
const named: Record<string, string> = {
	documents: 'the slug of a document: the last part of its address /d/<slug>',
	groups: 'the slug of a group',
	pages: 'the path of a page, encoded: %2F is the front page, %2Fwater-levels another',
	members: 'the id of a member',
	keys: 'the id of a key',
	knocks: 'the id of a knock',
	tokens: 'the id of a token',
	filters: 'the id of a saved filter',
	intake: 'the id of an upload, as its beginning answered it',
	'former-addresses': 'the id of a former address',
	webhooks: 'the id of a program that is told',
	websites: 'the id of a website that may give passes'
};

/** Which thing stands in the braces of that name. */
function whichOf(path: string, name: string): string {
	const part = path.split('/').find((_, i, parts) => parts[i + 1]?.startsWith(`{${name}}`)) ?? '';
	const words = named[part];
	if (!words) throw new Error(`nobody says what stands in the braces of ${path}`);
	return words;
}

/** The OpenAPI 3.1 description of the operations (its schemas are JSON Schema as they are). */
export function openApi(origin: string) {
	const paths: Record<string, Record<string, unknown>> = {};
	for (const o of operations) {
		const names = [...o.path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]!);
		const query = (o.query as { properties?: Record<string, TSchema>; required?: string[] } | undefined) ?? {};
		const { body, answer } = (examples as Record<string, Example | undefined>)[`${o.method} ${o.path}`] ?? {};
		const content: Record<string, unknown> = {};
		if (o.body) content['application/json'] = { schema: o.body, ...(typeof body === 'object' ? { example: body } : {}) };
		if (o.csv) content['text/csv'] = { schema: { type: 'string' }, example: body };
		if (o.form)
			content['multipart/form-data'] = {
				schema: {
					type: 'object',
					required: ['file'],
					properties: { file: { type: 'string', format: 'binary' }, ...Object.fromEntries(o.form.map((f) => [f, { type: 'string' }])) }
				}
			};
		(paths[o.path] ??= {})[o.method] = {
			summary: o.words,
			operationId: `${o.method}${o.path.replace(/[{}]/g, '').replace(/[/.-](\w)/g, (_, c: string) => c.toUpperCase())}`,
			parameters: [
				...names.map((name) => ({ name, in: 'path', required: true, description: whichOf(o.path, name), schema: { type: 'string' } })),
				...Object.entries(query.properties ?? {}).map(([name, { description, ...schema }]) => ({
					name,
					in: 'query',
					required: query.required?.includes(name) ?? false,
					description,
					schema
				}))
			],
			...(Object.keys(content).length ? { requestBody: { required: true, content } } : {}),
			responses: {
				[o.status]: {
					description: o.words,
					...(o.answer ? { content: { 'application/json': { schema: o.answer, ...(answer ? { example: answer } : {}) } } } : {})
				},
				default: { description: 'What was wrong, in words', content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } } }
			}
		};
	}
	return {
		openapi: '3.1.0',
		info: { title: 'Ianua', version: '1', description: 'Documents, editions, folders, topics, find, intake, doors, keys, groups and members.' },
		servers: [{ url: `${origin}/api/v1` }],
		security: [{ bearer: [] }, { session: [] }],
		paths,
		components: {
			schemas: { Problem },
			securitySchemes: { bearer: { type: 'http', scheme: 'bearer' }, session: { type: 'apiKey', in: 'cookie', name: 'ianua.session_token' } }
		}
	};
}
