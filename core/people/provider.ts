// An identity provider of the organisation (OpenID Connect Core 1.0): how it is named in the settings, and what its claims come to here.
import { Type, type Static } from '@sinclair/typebox';

const closed = { additionalProperties: false };
const Claim = Type.String({ minLength: 1, maxLength: 200, description: 'the name of a claim; of one within another with dots, as in resource.roles' });

/** One provider, as `providers.json` of the data folder has it. */
export const ProviderGiven = Type.Object(
	{
		id: Type.String({ pattern: '^[a-z][a-z0-9-]{0,30}$', description: 'its name in addresses: the provider leads back to /api/auth/callback/<id>' }),
		name: Type.String({ minLength: 1, maxLength: 60, description: 'as it stands on the button: “Sign in with <name>”' }),
		issuer: Type.String({
			pattern: '^(?:https://|http://(?:localhost|127\\.0\\.0\\.1)[:/]).*$',
			description: 'where its discovery document lies, without /.well-known'
		}),
		client: Type.String({ minLength: 1, description: 'the client id that it knows this site by' }),
		secret: Type.Optional(Type.String({ minLength: 1 })),
		scopes: Type.Optional(Type.Array(Type.String({ minLength: 1 }), { description: 'openid, email and profile unless said' })),
		/** Whether somebody who is not here yet becomes a member at their first sign-in. */
		makesMembers: Type.Optional(Type.Boolean({ default: true })),
		/** It says of no address whether it is verified, and is trusted in that. */
		trustsAddresses: Type.Optional(Type.Boolean({ default: false })),
		groups: Type.Optional(
			Type.Object(
				{
					claim: Claim,
					to: Type.Record(Type.String(), Type.String({ maxLength: 120 }), {
						description: 'values of the claim, each with the slug of the group that it stands for'
					}),
					days: Type.Optional(
						Type.Integer({ minimum: 1, maximum: 3660, description: 'how long a membership lasts without another sign-in; without end unless said' })
					)
				},
				closed
			)
		),
		staff: Type.Optional(
			Type.Object({ claim: Claim, editor: Type.Optional(Type.Array(Type.String())), owner: Type.Optional(Type.Array(Type.String())) }, closed)
		),
		/** Mail domains whose people sign in by it and by nothing else; owners always can. */
		only: Type.Optional(Type.Array(Type.String({ pattern: '^[a-z0-9.-]+$' })))
	},
	closed
);
export const Providers = Type.Array(ProviderGiven, { maxItems: 20 });
export type Provider = Static<typeof ProviderGiven>;

export type Claims = Readonly<Record<string, unknown>>;

/** The values of a claim, as texts: one, or several in a list. `valuesOf({realm: {roles: ['a']}}, 'realm.roles')` → ['a']. */
export function valuesOf(claims: Claims, name: string): string[] {
	const own = Object.hasOwn(claims, name) ? claims[name] : undefined;
	const value =
		own ??
		name
			.split('.')
			.reduce<unknown>((at, step) => (typeof at === 'object' && at !== null && Object.hasOwn(at, step) ? (at as Claims)[step] : undefined), claims);
	return (Array.isArray(value) ? value : [value]).flatMap((v: unknown) =>
		typeof v === 'string' ? [v] : typeof v === 'number' || typeof v === 'boolean' ? [String(v)] : []
	);
}

/** What claims come to: of the groups that the provider decides on, those that they give; and a role among the staff, where they give one. */
export interface Arrival {
	readonly groups: readonly string[];
	/** All groups that the provider decides on. */
	readonly decided: readonly string[];
	/** Null where the provider says nothing of staff, or does not count them among it. */
	readonly role: 'owner' | 'editor' | null;
	readonly decidesRole: boolean;
}

/** What the claims about somebody come to here. */
export function arrivalOf({ groups, staff }: Pick<Provider, 'groups' | 'staff'>, claims: Claims): Arrival {
	const given = new Set(groups ? valuesOf(claims, groups.claim) : []);
	const roles = new Set(staff ? valuesOf(claims, staff.claim) : []);
	const has = (values: readonly string[] | undefined) => values?.some((value) => roles.has(value)) ?? false;
	return {
		groups: [...new Set(Object.entries(groups?.to ?? {}).flatMap(([value, slug]) => (given.has(value) ? [slug] : [])))],
		decided: [...new Set(Object.values(groups?.to ?? {}))],
		role: has(staff?.owner) ? 'owner' : has(staff?.editor) ? 'editor' : null,
		decidesRole: staff !== undefined
	};
}

/** The provider by which alone the people of a mail address sign in; null where any way will do. */
export const onlyBy = (providers: readonly Provider[], email: string): Provider | null =>
	providers.find(({ only }) => only?.includes(email.slice(email.lastIndexOf('@') + 1).toLowerCase())) ?? null;

/** What is wrong with a list of providers beside its shape; null where nothing is. */
export function providersTrouble(providers: readonly Provider[]): string | null {
	const ids = providers.map(({ id }) => id);
	const twice = ids.find((id, i) => ids.indexOf(id) !== i);
	return twice === undefined ? null : `two providers are called “${twice}”`;
}
