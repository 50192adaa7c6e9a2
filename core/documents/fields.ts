// Fields: particulars that a site gives its documents beyond title and topics, as "Department" or "Closing date".
import { Type, type Static } from '@sinclair/typebox';
import { isDay } from '../access/hours';
import { dateFormat, numberFormat } from '../text/formats';
import { Line } from '../text/line';
import { isLink } from '../text/link';
import { oneOf } from '../schema';

export const fieldKinds = ['text', 'choice', 'date', 'number', 'link'] as const;
export type FieldKind = (typeof fieldKinds)[number];
export const fieldKindWords: Record<FieldKind, string> = { text: 'Text', choice: 'Choice', date: 'Date', number: 'Number', link: 'Link' };

const fieldName = '^[a-z0-9]+(?:-[a-z0-9]+)*$';
/** A field as the site has it. Its name stays when its words change. */
export const Field = Type.Object(
	{
		name: Type.String({ pattern: fieldName, maxLength: 60 }),
		words: Line(60),
		kind: oneOf(fieldKinds),
		/** What may be chosen, in its order. */
		choices: Type.Optional(Type.Array(Line(100), { maxItems: 200, uniqueItems: true })),
		/** Shown with the document in lists. */
		listed: Type.Boolean(),
		/** Lists can be narrowed by it; of choices only. */
		filtered: Type.Boolean()
	},
	{ additionalProperties: false }
);
export type Field = Static<typeof Field>;
export const Fields = Type.Array(Field, { maxItems: 40 });

/** What the page of a document has: the way to read it; or its particulars, with the document to read in place. */
export const documentPages = ['plain', 'particulars'] as const;
export type DocumentPage = (typeof documentPages)[number];

/** What a document says in its fields, by their names: a day as YYYY-MM-DD, a number as one, all else as text. */
export type FieldValues = Readonly<Record<string, string | number>>;
/** A change of some of them; null takes one away. */
export const FieldsChange = Type.Record(
	Type.String({ pattern: fieldName, maxLength: 60 }),
	Type.Union([Type.String({ maxLength: 500 }), Type.Number(), Type.Null()])
);
export type FieldsChange = Static<typeof FieldsChange>;

/** What is wrong with the site's fields, in words; null where nothing is. */
export function fieldsTrouble(fields: readonly Field[]): string | null {
	const names = new Set<string>();
	const words = new Set<string>();
	for (const field of fields) {
		if (names.has(field.name) || words.has(field.words.trim().toLowerCase())) return `there are two fields “${field.words}”`;
		names.add(field.name);
		words.add(field.words.trim().toLowerCase());
		if (field.kind === 'choice' && !field.choices?.length) return `“${field.words}” has nothing to choose from`;
	}
	return null;
}

/** What is wrong with a value for a field, in words; null where it is one. A choice that is no longer offered stays where it stands, and where it stood (`was`) it may stand again. */
export function valueTrouble({ words, kind, choices = [] }: Field, value: string | number, was: readonly (string | number)[] = []): string | null {
	switch (kind) {
		case 'number':
			return typeof value === 'number' && Number.isFinite(value) ? null : `“${words}” is a number`;
		case 'date':
			return typeof value === 'string' && isDay(value) ? null : `“${words}” is a day, as 2027-03-31`;
		case 'link':
			return typeof value === 'string' && isLink(value) ? null : `“${words}” is a web address`;
		case 'choice':
			return was.includes(value) || (typeof value === 'string' && choices.includes(value)) ? null : `“${words}” is one of: ${choices.join(', ')}`;
		case 'text':
			return typeof value === 'string' ? null : `“${words}” is text`;
	}
}

/**
 * Values with a change made in them; `said` gives what the document has said in a field before, so that undo can say it again. Throws a `RangeError` that says
 * in words what does not fit.
 */
export function withFields(
	fields: readonly Field[],
	before: FieldValues,
	change: FieldsChange,
	said: (name: string) => readonly (string | number)[] = () => []
): FieldValues {
	const next: Record<string, string | number> = { ...before };
	for (const [name, given] of Object.entries(change)) {
		const value = typeof given === 'string' ? given.trim() : given;
		if (value === null || value === '') {
			delete next[name];
			continue;
		}
		const field = fields.find((f) => f.name === name);
		if (!field) throw new RangeError(`there is no field “${name}”`);
		const trouble = valueTrouble(field, value, [...(before[name] === undefined ? [] : [before[name]]), ...said(name)]);
		if (trouble) throw new RangeError(trouble);
		next[name] = value;
	}
	return next;
}

/** A value as it is typed into a table or a form, read for its field: '1,200' and '31/3/2027' are not guessed at, '1200' and '2027-03-31' are taken. */
export function valueOf({ kind }: Pick<Field, 'kind'>, typed: string): string | number | null {
	const text = typed.trim();
	if (!text) return null;
	return kind === 'number' && /^-?\d+(?:\.\d+)?$/.test(text) ? Number(text) : text;
}

/** A field of a document, ready to be shown. */
export interface ShownField {
	readonly name: string;
	readonly words: string;
	/** Its value in words. */
	readonly value: string;
	/** Of a link: where it leads. */
	readonly href: string | null;
}

/** What a document says in the site's fields, in their order; with `listed`, only in those that lists show. Days and numbers as the language has them (BCP 47). */
export function shownFields(fields: readonly Field[], values: FieldValues, language = 'en', listed = false): ShownField[] {
	return fields.flatMap(({ name, words, kind, listed: inLists }) => {
		const value = values[name];
		if (value === undefined || (listed && !inLists)) return [];
		const said =
			kind === 'date'
				? dateFormat(language, { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(Date.parse(`${value}T00:00Z`))
				: kind === 'number'
					? numberFormat(language).format(Number(value))
					: kind === 'link'
						? String(value)
								.replace(/^https?:\/\/|^mailto:|^tel:/, '')
								.replace(/\/$/, '')
						: String(value);
		return [{ name, words, value: said, href: kind === 'link' ? String(value) : null }];
	});
}

/** Fields by which lists can be narrowed. */
export const filteringFields = (fields: readonly Field[]): Field[] => fields.filter((field) => field.filtered && field.kind === 'choice');

/** 'department:Works': a value of a field as a filter names it. */
export const fieldFilter = (name: string, value: string): string => `${name}:${value}`;

/** The values that filters ask for, by field: several of one field are any of them. */
export function filtersByField(filters: readonly string[]): Map<string, string[]> {
	const by = new Map<string, string[]>();
	for (const filter of filters) {
		const at = filter.indexOf(':');
		if (at < 1) continue;
		const name = filter.slice(0, at);
		by.set(name, [...(by.get(name) ?? []), filter.slice(at + 1)]);
	}
	return by;
}
