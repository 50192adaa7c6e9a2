// An authenticator for passkeys, and a browser that sends the forms about them: what is signed is laid out as W3C Web Authentication Level 3 says
// (6.1, 6.5, 8.7; from memory).
import { createHash, createSign, generateKeyPairSync, randomBytes } from 'node:crypto';

const site = 'localhost';
const base64url = (bytes: Uint8Array | string) => Buffer.from(bytes).toString('base64url');
const sha256 = (bytes: Uint8Array | string) => createHash('sha256').update(bytes).digest();

interface Ceremony {
	challenge: string;
	/** The origin that it was used at. */
	at: string;
	/** Whether it made sure that it is its holder (flag UV). */
	verified?: boolean;
	forSite?: string;
}

/** One credential: ES256, of an authenticator that counts. */
export class Authenticator {
	private readonly keys = generateKeyPairSync('ec', { namedCurve: 'P-256' });
	private readonly id = randomBytes(16);
	private counter = 0;

	private head({ verified = true, forSite = site }: Ceremony, attested: boolean): Buffer {
		const flags = 0x01 | (verified ? 0x04 : 0) | (attested ? 0x40 : 0);
		const count = Buffer.alloc(4);
		count.writeUInt32BE(++this.counter);
		return Buffer.concat([sha256(forSite), Buffer.from([flags]), count]);
	}
	private said(type: string, { challenge, at }: Ceremony) {
		return Buffer.from(JSON.stringify({ type, challenge, origin: at, crossOrigin: false }));
	}
	make(ceremony: Ceremony) {
		const { x, y } = this.keys.publicKey.export({ format: 'jwk' });
		// COSE_Key (RFC 9053): kty EC2, alg ES256, crv P-256, x, y
		const key = Buffer.concat([
			Buffer.from('a5010203262001215820', 'hex'),
			Buffer.from(x!, 'base64url'),
			Buffer.from('225820', 'hex'),
			Buffer.from(y!, 'base64url')
		]);
		const data = Buffer.concat([this.head(ceremony, true), Buffer.alloc(16), Buffer.from([0, this.id.length]), this.id, key]);
		// CBOR (RFC 8949): {fmt: 'none', attStmt: {}, authData}
		const attestation = Buffer.concat([Buffer.from('a363666d74646e6f6e656761747453746d74a0686175746844617461', 'hex'), Buffer.from([0x58, data.length]), data]);
		return {
			id: base64url(this.id),
			rawId: base64url(this.id),
			type: 'public-key',
			clientExtensionResults: {},
			response: { clientDataJSON: base64url(this.said('webauthn.create', ceremony)), attestationObject: base64url(attestation), transports: ['internal'] }
		};
	}
	use(ceremony: Ceremony) {
		const [data, said] = [this.head(ceremony, false), this.said('webauthn.get', ceremony)];
		const signature = createSign('sha256')
			.update(Buffer.concat([data, sha256(said)]))
			.sign(this.keys.privateKey);
		return {
			id: base64url(this.id),
			rawId: base64url(this.id),
			type: 'public-key',
			clientExtensionResults: {},
			response: { clientDataJSON: base64url(said), authenticatorData: base64url(data), signature: base64url(signature) }
		};
	}
}

/** A browser that sends forms of these pages, and keeps its cookies. */
export class SiteBrowser {
	private readonly jar = new Map<string, string>();
	constructor(
		readonly at: string,
		cookie = ''
	) {
		for (const pair of cookie.split('; ').filter(Boolean)) this.jar.set(pair.split('=')[0]!, pair.slice(pair.indexOf('=') + 1));
	}
	async send(address: string, fields: Record<string, string> = {}) {
		const response = await fetch(`${this.at}${address}`, {
			method: 'POST',
			redirect: 'manual',
			headers: {
				'x-sveltekit-action': 'true',
				accept: 'application/json',
				origin: this.at,
				cookie: [...this.jar].map(([name, value]) => `${name}=${value}`).join('; ')
			},
			body: new URLSearchParams(fields)
		});
		for (const line of response.headers.getSetCookie()) {
			const [, name, value] = /^([^=]+)=([^;]*)/.exec(line)!;
			if (value) this.jar.set(name!, value);
			else this.jar.delete(name!);
		}
		return (await response.json()) as { type: string; status: number; location?: string; data?: string };
	}
	/** What is to be signed; the answer is in kit's own notation (devalue). */
	async challenge(page: string): Promise<string> {
		const { data } = await this.send(`${page}?/passkeyAsk`);
		const [root, ...values] = JSON.parse(data!) as [Record<string, number>, ...unknown[]];
		const ask = values[root.ask! - 1] as Record<string, number>;
		return values[ask.challenge! - 1] as string;
	}
	/** Where one ends up, or the words that say why not. */
	async comeIn(by: Authenticator, how: Partial<Ceremony> = {}): Promise<string> {
		const answer = await this.send('/sign-in?/passkey', {
			response: JSON.stringify(by.use({ at: this.at, challenge: await this.challenge('/sign-in'), ...how }))
		});
		return answer.location ?? answer.data ?? '';
	}
	async whoIsIt(): Promise<string> {
		const cookie = [...this.jar].map(([name, value]) => `${name}=${value}`).join('; ');
		return (await fetch(`${this.at}/me/record.json`, { headers: { cookie } })).text();
	}
	/** Adds a passkey to the account that one is signed in to. */
	async add(by: Authenticator, how: Partial<Ceremony> = {}, name = 'My phone') {
		return this.send('/me/account?/addPasskey', {
			name,
			response: JSON.stringify(by.make({ at: this.at, challenge: await this.challenge('/me/account'), ...how }))
		});
	}
}
