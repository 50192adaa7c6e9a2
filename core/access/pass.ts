// The pass: by it another website says who is signed in there (JWT, RFC 7519), so that its members read kept documents in a frame on its pages.
// Here is what its claims have to say; the signature is looked at before (lib/server/access/passes).
import { Type, type Static } from '@sinclair/typebox';

/** How a pass may be signed (RFC 7518, section 3.1): with a secret that both have, or with a key of the website's own. */
export const passAlgorithms = ['HS256', 'RS256', 'ES256'] as const;
export type PassAlgorithm = (typeof passAlgorithms)[number];

/** S for which a pass may be good, at most, and by which two clocks may differ. */
export const passSeconds = { most: 300, apart: 30 } as const;

/** The claims (RFC 7519, section 4.1), and of our own `name` and `groups`. */
export const PassClaims = Type.Object({
	iss: Type.String({ minLength: 1, maxLength: 300, description: 'the website, as it is set here: its origin, https://www.example.org' }),
	aud: Type.Union([Type.String({ maxLength: 300 }), Type.Array(Type.String({ maxLength: 300 }), { maxItems: 10 })], { description: 'the origin of this site' }),
	sub: Type.String({ minLength: 1, maxLength: 200, description: 'the website’s own id for the person' }),
	name: Type.Optional(Type.String({ maxLength: 200, description: 'what they are called, for the ledger' })),
	groups: Type.Array(Type.String({ maxLength: 80 }), { minItems: 1, maxItems: 50, description: 'addresses of groups here, that the website may grant' }),
	iat: Type.Number({ description: 'when it was made, s since 1970' }),
	exp: Type.Number({ description: 'when it ends, at most five minutes later' }),
	jti: Type.String({ minLength: 8, maxLength: 200, description: 'an id of its own: a pass is taken once' })
});
export type PassClaims = Static<typeof PassClaims>;

export interface PassAsked {
	/** Our own origin. */
	readonly origin: string;
	/** The website that the pass names, and the groups that it may grant. */
	readonly website: { readonly origin: string; readonly groups: readonly string[] };
	/** Now, ms since 1970. */
	readonly now: number;
}

/**
 * Why the claims of a pass do not let anybody in, in a sentence for whoever makes it; null where they do. Its signature, and that it comes for the
 * first time, are looked at elsewhere.
 */
export function passTrouble(claims: PassClaims, { origin, website, now }: PassAsked): string | null {
	const seconds = now / 1000;
	if (claims.iss !== website.origin) return `“iss” is ${claims.iss}, and the key is that of ${website.origin}`;
	// section 4.1.3: whoever is not named by it must refuse it
	if (![claims.aud].flat().includes(origin)) return `“aud” has to be ${origin}`;
	// section 4.1.4: on or after this time it must not be taken
	if (seconds >= claims.exp + passSeconds.apart) return '“exp” is over: make the pass when the page is asked for, and look at the clock of the machine';
	if (claims.iat > seconds + passSeconds.apart) return '“iat” lies in the future: look at the clock of the machine';
	if (claims.exp <= claims.iat) return '“exp” has to be later than “iat”';
	if (claims.exp - claims.iat > passSeconds.most) return `“exp” may be at most ${passSeconds.most} seconds after “iat”`;
	const strange = claims.groups.filter((group) => !website.groups.includes(group));
	if (strange.length)
		return `this website may not grant ${strange.map((group) => `“${group}”`).join(', ')}: a group that is not here, or that it was not given in the settings`;
	return null;
}
