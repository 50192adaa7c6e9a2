// The feed of a catalogue (RFC 4287): what a visitor sees in it, newest first.
import type { RequestHandler } from './$types';
import { visitor } from '#core/access/decide';
import { IanuaError } from '#core/errors';
import { problem } from '$lib/server/http/api';
import { xml } from '$lib/server/placing/sitemap';
import { pageAt } from '$lib/server/placing/page-view';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

export const GET: RequestHandler = async (event) => {
	const path = `/${event.params.path}`;
	const answer = await pageAt(path, { who: visitor, person: null }, undefined, { order: '-changed' });
	// a feed is read without signing in: a page kept from visitors is as if it had none
	if (answer.state !== 'seen' || answer.page.body.layout !== 'catalogue') return problem(new IanuaError('not-found'), event.locals.requestId);
	const { IANUA_ORIGIN } = settings();
	const { name } = await site();
	const { title, body } = answer.page;
	const { items } = body.list;
	const at = (address: string) => xml(IANUA_ORIGIN + address);
	const self = `${path === '/' ? '' : path}/feed.atom`;
	const entries = items.map(
		(item) => `\t<entry>
		<id>${at(`/d/${item.slug}`)}</id>
		<title>${xml(item.title)}</title>
		<updated>${item.changedAt}</updated>
		<link rel="alternate" type="text/html" href="${at(`/d/${item.slug}`)}"/>
		${item.description ? `<summary>${xml(item.description)}</summary>` : `<summary>${xml(item.facts)}</summary>`}
	</entry>`
	);
	const updated = items[0]?.changedAt ?? new Date(0).toISOString();
	return new Response(
		`<?xml version="1.0" encoding="utf-8"?>
<feed xmlns="http://www.w3.org/2005/Atom">
	<id>${at(path)}</id>
	<title>${xml(title)}</title>
	<updated>${updated}</updated>
	<author><name>${xml(name)}</name></author>
	<link rel="self" type="application/atom+xml" href="${at(self)}"/>
	<link rel="alternate" type="text/html" href="${at(path)}"/>
${entries.join('\n')}
</feed>
`,
		{ headers: { 'content-type': 'application/atom+xml; charset=utf-8' } }
	);
};
