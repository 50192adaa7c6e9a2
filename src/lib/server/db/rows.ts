// What queries give, where it is known how much that is.

/** The row of a query that always gives one (an aggregate, a row just written, one that is held). Throws where there is none: that is a fault of ours. */
export function theRow<Row>(rows: readonly (Row | undefined)[]): Row {
	const [row] = rows;
	if (row === undefined) throw new Error('a query that always gives a row gave none');
	return row;
}
