// The API of the site’s settings: each operation with what it takes and gives. Requests are checked by these schemas, and openapi.json is made of them.
import { Type } from '@sinclair/typebox';
import { type Operation, withBefore } from '../http/contract';
import { SiteChange } from './site';

export const siteOperations = [
	{ method: 'get', path: '/site', words: 'The site’s settings', status: 200, answer: SiteChange },
	{
		method: 'patch',
		path: '/site',
		words: 'Changes the site’s settings; for its owners',
		body: SiteChange,
		status: 200,
		answer: withBefore(SiteChange, SiteChange)
	},
	{ method: 'get', path: '/openapi.json', words: 'This description', status: 200, answer: Type.Any() }
] as const satisfies readonly Operation[];
