// How the stand-in identity provider knows a site, and how the site names it.

export const identityClient = { id: 'works', client: 'ianua', secret: 'only-on-loopback' } as const;

/** What stands in the `providers.json` of a site that uses the stand-in. */
export const standinProvider = (port: number) => ({
	id: identityClient.id,
	name: 'Canal House',
	issuer: `http://127.0.0.1:${port}`,
	client: identityClient.client,
	secret: identityClient.secret,
	groups: { claim: 'groups', to: { wardens: 'lock-wardens', friends: 'friends' }, days: 90 }
});
