// Documents brought into a running Ianua, as staff do.

/** Uploads a file and opens its door to everybody. Gives its address's slug. */
export async function bringOpen(origin: string, staff: string, bytes: Uint8Array, name: string): Promise<string> {
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(bytes)]), name);
	const { slug } = (await (await fetch(`${origin}/api/v1/documents`, { method: 'POST', headers: { cookie: staff }, body: form })).json()) as {
		slug: string;
	};
	await fetch(`${origin}/api/v1/documents/${slug}`, {
		method: 'PATCH',
		headers: { cookie: staff, 'content-type': 'application/json' },
		body: JSON.stringify({ door: { position: 'open' } })
	});
	return slug;
}
