// The shape of where a document was met on other websites.
import { Type, type Static } from '@sinclair/typebox';

export const Elsewhere = Type.Object({
	document: Type.String({ description: 'its slug' }),
	documentTitle: Type.String(),
	site: Type.String({ description: 'the other website: its host' }),
	openings: Type.Integer(),
	met: Type.Integer({ description: 'how often readers had it before them there' })
});
export type Elsewhere = Static<typeof Elsewhere>;
