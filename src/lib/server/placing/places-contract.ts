// The API of places: documents exchanged in them, put on pages from outside their editors, and taken out.
import { Type, type Static } from '@sinclair/typebox';
import { forms, presses } from '#core/placing/placement';
import { Nothing, oneOf, type Operation } from '../http/contract';

const Places = Type.Array(
	Type.Object(
		{
			page: Type.String({ maxLength: 200, description: 'path of the page' }),
			placement: Type.String({
				maxLength: 40,
				description: 'its id, or `list-3` for the third document that a catalogue lists by hand, with the id of the list in its place in an article'
			}),
			published: Type.Optional(Type.Boolean({ description: 'in what is published, or in the draft; both where it is not said' }))
		},
		{ additionalProperties: false }
	),
	{ maxItems: 40_000 }
);
export const Exchange = Type.Object(
	{
		with: Type.String({ maxLength: 120, description: 'slug of the document that comes in its place' }),
		only: Type.Optional(Places)
	},
	{ additionalProperties: false }
);
export type Exchange = Static<typeof Exchange>;
export const ExchangeAnswer = Type.Object({
	places: Places,
	before: Type.Object({ document: Type.String(), exchange: Exchange }, { description: 'sent to the exchange of that document, it is as it was' })
});
export type ExchangeAnswer = Static<typeof ExchangeAnswer>;

const slugs = Type.Array(Type.String({ maxLength: 120 }), { minItems: 1, maxItems: 200, uniqueItems: true });
export const PlacementsGiven = Type.Object(
	{
		documents: slugs,
		places: Type.Array(
			Type.Object(
				{ page: Type.String({ maxLength: 200, description: 'path of an article' }), form: oneOf(forms), press: oneOf(presses) },
				{ additionalProperties: false }
			),
			{ minItems: 1, maxItems: 50 }
		),
		ask: Type.Optional(Type.Boolean({ description: 'for who can be asked: where readers would meet dead ends, nothing is done and they are told' }))
	},
	{ additionalProperties: false }
);
export type PlacementsGiven = Static<typeof PlacementsGiven>;
export const PlacementsTaken = Type.Object(
	{
		places: Type.Array(Type.Object({ page: Type.String({ maxLength: 200 }), placement: Type.String({ maxLength: 40 }) }, { additionalProperties: false }), {
			maxItems: 10_000
		})
	},
	{ additionalProperties: false }
);
export type PlacementsTaken = Static<typeof PlacementsTaken>;
export const PlacementsAnswer = Type.Object({
	...PlacementsTaken.properties,
	before: PlacementsTaken,
	asks: Type.Optional(
		Type.Array(Type.Object({ page: Type.String(), pageTitle: Type.String(), document: Type.String(), whom: Type.String() }), {
			description: 'the dead ends that are asked about; nothing is done'
		})
	)
});
export type PlacementsAnswer = Static<typeof PlacementsAnswer>;

export const placesOperations = [
	{
		method: 'post',
		path: '/documents/{slug}/exchange',
		words: 'Puts another document in its place wherever it stands on pages; doors stay as they are',
		body: Exchange,
		status: 200,
		answer: ExchangeAnswer
	},
	{
		method: 'post',
		path: '/placements',
		words: 'Puts documents at the end of pages, in their drafts and in what is published',
		body: PlacementsGiven,
		status: 201,
		answer: PlacementsAnswer
	},
	{
		method: 'patch',
		path: '/placements',
		words: 'Takes placements out of pages, in their drafts and in what is published',
		body: PlacementsTaken,
		status: 200,
		answer: Nothing
	}
] as const satisfies readonly Operation[];
