// An identity provider on loopback (OpenID Connect): signs in whoever says who they are, by their mail address and any password. For trying and testing.
import type { Server } from 'node:http';
import Provider from 'oidc-provider';
import { identityClient } from './identity-client';

export interface Somebody {
	readonly name: string;
	readonly email: string;
	readonly verified: boolean;
	readonly groups: readonly string[];
}

const named = (login: string): Somebody => ({
	name: login
		.split('@')[0]!
		.split(/[._-]/)
		.map((part) => part.slice(0, 1).toUpperCase() + part.slice(1))
		.join(' '),
	email: login,
	verified: true,
	groups: []
});

/** Starts it. `people` gives what it says of whoever signs in as something; by itself it knows nothing but the address. */
export async function startIdentity(port: number, origin: string, people: (login: string) => Somebody = named): Promise<{ stop: () => void }> {
	const provider = new Provider(`http://127.0.0.1:${port}`, {
		clients: [
			{
				client_id: identityClient.client,
				client_secret: identityClient.secret,
				redirect_uris: [`${origin}/api/auth/callback/${identityClient.id}`],
				post_logout_redirect_uris: [`${origin}/`]
			}
		],
		claims: { openid: ['sub'], email: ['email', 'email_verified'], profile: ['name', 'groups'] },
		features: { devInteractions: { enabled: true } },
		cookies: { keys: ['a stand-in signs for nobody'] },
		findAccount: (_: unknown, login: string) => {
			const { name, email, verified, groups } = people(login);
			return { accountId: login, claims: () => ({ sub: login, name, email, email_verified: verified, groups }) };
		}
	});
	const server = await new Promise<Server>((up) => {
		const listening = provider.listen(port, '127.0.0.1', () => up(listening));
	});
	return {
		stop: () => {
			server.closeAllConnections();
			server.close();
		}
	};
}
