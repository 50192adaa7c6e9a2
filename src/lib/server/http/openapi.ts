// The API's description of itself, made of its operations.
import { Type, type TSchema } from '@sinclair/typebox';
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

/** The OpenAPI 3.1 description of the operations (its schemas are JSON Schema as they are). */
export function openApi(origin: string) {
	const paths: Record<string, Record<string, unknown>> = {};
	for (const o of operations) {
		const names = [...o.path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]!);
		const query = (o.query as { properties?: Record<string, TSchema>; required?: string[] } | undefined) ?? {};
		const content: Record<string, unknown> = {};
		if (o.body) content['application/json'] = { schema: o.body };
		if (o.csv) content['text/csv'] = { schema: { type: 'string' } };
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
				...names.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
				...Object.entries(query.properties ?? {}).map(([name, schema]) => ({ name, in: 'query', required: query.required?.includes(name) ?? false, schema }))
			],
			...(Object.keys(content).length ? { requestBody: { required: true, content } } : {}),
			responses: {
				[o.status]: { description: o.words, ...(o.answer ? { content: { 'application/json': { schema: o.answer } } } : {}) },
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
