// Holds the row types of raw SQL against what the database really gave while the server tests ran (watch-rows.js writes that down): every
// column that a type names is there, and no value was of a kind that the type leaves out. Nothing else holds them: the compiler believes
// what is written before a query.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

/** Statement → column → kinds of values seen: `null`, `string`, `number`, `boolean`, `bigint`, `Date`, `Uint8Array`, `array`, `object`. */
type Watched = Record<string, Record<string, string[]>>;

/** A query in the sources whose rows have a type. */
interface TypedQuery {
	readonly at: string;
	/** What is written of its statement, without what is put in. */
	readonly written: string[];
	readonly pattern: RegExp;
	/** Kinds that the type allows for each column; null where it allows anything. */
	readonly columns: Map<string, Set<string> | null>;
	/** Columns that may be left out. */
	readonly optional: ReadonlySet<string>;
}

/** Kinds of values that a type allows; null for any. */
function kindsOf(type: ts.Type, checker: ts.TypeChecker): Set<string> | null {
	const parts = type.isUnion() ? type.types : [type];
	const kinds = new Set<string>();
	for (const part of parts) {
		const { flags } = part;
		const name = part.getSymbol()?.name;
		if (flags & (ts.TypeFlags.Any | ts.TypeFlags.Unknown)) return null;
		if (flags & ts.TypeFlags.Null) kinds.add('null');
		else if (flags & ts.TypeFlags.StringLike) kinds.add('string');
		else if (flags & ts.TypeFlags.NumberLike) kinds.add('number');
		else if (flags & ts.TypeFlags.BooleanLike) kinds.add('boolean');
		else if (flags & ts.TypeFlags.BigIntLike) kinds.add('bigint');
		else if (checker.isArrayLikeType(part)) kinds.add('array');
		else if (name === 'Date' || name === 'Uint8Array') kinds.add(name);
		else if (name === 'Buffer') kinds.add('Uint8Array');
		else if (part.isIntersection()) for (const kind of kindsOf(part.types[0]!, checker) ?? []) kinds.add(kind);
		else kinds.add('object');
	}
	return kinds;
}

/** The template that a constant is, or that a function gives; null where it is none. */
function templateOf(node: ts.Node | undefined): ts.TaggedTemplateExpression | null {
	if (!node) return null;
	if (ts.isTaggedTemplateExpression(node)) return node;
	if (ts.isVariableDeclaration(node)) return templateOf(node.initializer);
	if (ts.isArrowFunction(node) || ts.isFunctionDeclaration(node)) return templateOf(node.body);
	if (ts.isBlock(node)) return templateOf(node.statements.find(ts.isReturnStatement)?.expression);
	return null;
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** What is written of a statement between what is put in; parts that stand elsewhere as constants or functions are looked up. */
function writtenOf({ template }: ts.TaggedTemplateExpression, checker: ts.TypeChecker): string[] {
	if (ts.isNoSubstitutionTemplateLiteral(template)) return [template.text];
	const written = [template.head.text];
	for (const { expression, literal } of template.templateSpans) {
		const named = ts.isCallExpression(expression) ? expression.expression : expression;
		let symbol = ts.isIdentifier(named) ? checker.getSymbolAtLocation(named) : undefined;
		if (symbol && symbol.flags & ts.SymbolFlags.Alias) symbol = checker.getAliasedSymbol(symbol);
		const part = templateOf(symbol?.valueDeclaration);
		const [first = '', ...others] = part ? writtenOf(part, checker) : ['', ''];
		// there is always a last piece
		written.push(written.pop()! + first, ...others);
		// there is always a last piece
		written.push(written.pop()! + literal.text);
	}
	return written;
}

/** The row type given to a query: of its list for postgres's own template, of one row for Drizzle's `execute`. */
function typedRow(node: ts.Node, checker: ts.TypeChecker): { template: ts.TaggedTemplateExpression; row: ts.Type } | null {
	if (ts.isTaggedTemplateExpression(node) && node.typeArguments?.length) {
		const list = checker.getTypeFromTypeNode(node.typeArguments[0]!);
		const row = checker.getIndexTypeOfType(list, ts.IndexKind.Number);
		return row ? { template: node, row } : null;
	}
	if (ts.isCallExpression(node) && node.typeArguments?.length && ts.isPropertyAccessExpression(node.expression) && node.expression.name.text === 'execute') {
		const [statement] = node.arguments;
		if (statement && ts.isTaggedTemplateExpression(statement)) return { template: statement, row: checker.getTypeFromTypeNode(node.typeArguments[0]!) };
	}
	return null;
}

/** All queries below a folder whose rows have a type. */
function typedQueries(folder: string): TypedQuery[] {
	const { config } = ts.readConfigFile('tsconfig.json', (path) => ts.sys.readFile(path)) as { config: unknown };
	const { options } = ts.parseJsonConfigFileContent(config, ts.sys, '.');
	const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((name) => name.endsWith('.ts'));
	const program = ts.createProgram(
		files.map((name) => join(folder, name)),
		options
	);
	const checker = program.getTypeChecker();
	const found: TypedQuery[] = [];
	for (const source of program.getSourceFiles()) {
		if (source.isDeclarationFile || !relative('.', source.fileName).startsWith(folder)) continue;
		const visit = (node: ts.Node): void => {
			const typed = typedRow(node, checker);
			if (typed) {
				const written = writtenOf(typed.template, checker);
				found.push({
					at: `${relative('.', source.fileName)}:${source.getLineAndCharacterOfPosition(node.getStart()).line + 1}`,
					written,
					pattern: new RegExp(`^${written.map(escaped).join('[^]*')}$`),
					optional: new Set(
						checker
							.getPropertiesOfType(typed.row)
							.filter(({ flags }) => flags & ts.SymbolFlags.Optional)
							.map(({ name }) => name)
					),
					columns: new Map(checker.getPropertiesOfType(typed.row).map((column) => [column.name, kindsOf(checker.getTypeOfSymbol(column), checker)]))
				});
			}
			ts.forEachChild(node, visit);
		};
		visit(source);
	}
	return found;
}

/** What was seen in all programs that ran. */
function watched(folder: string): Watched {
	const all: Watched = {};
	for (const name of existsSync(folder) ? readdirSync(folder) : [])
		for (const [statement, columns] of Object.entries(JSON.parse(readFileSync(join(folder, name), 'utf8')) as Watched)) {
			const known = (all[statement] ??= {});
			for (const [column, kinds] of Object.entries(columns)) known[column] = [...new Set([...(known[column] ?? []), ...kinds])];
		}
	return all;
}

const length = ({ written }: TypedQuery) => written.reduce((sum, part) => sum + part.trim().length, 0);

/** How the columns of rows differ from what the type of their query says. */
function* faultsOf({ columns: types, optional }: TypedQuery, columns: Watched[string]): Generator<string> {
	for (const [column, allowed] of types) {
		const kinds = columns[column];
		if (!kinds && !optional.has(column)) yield `no column ${column}`;
		for (const kind of kinds ?? []) if (allowed && !allowed.has(kind)) yield `${column}: ${kind}, where the type says ${[...allowed].join(' or ')}`;
	}
}

/** What is wrong, a line each; with how many queries were looked at. */
function wrongRows(queries: readonly TypedQuery[], seen: Watched): { wrong: string[]; ran: number } {
	const wrong = new Set<string>();
	const ran = new Set<TypedQuery>();
	for (const [statement, columns] of Object.entries(seen)) {
		const fitting = queries.filter(({ pattern }) => pattern.test(statement));
		// a statement made of parts may fit several: it is the one of which most is written there, or those that are written alike
		const most = Math.max(...fitting.map(length));
		for (const query of fitting.filter((q) => length(q) === most)) {
			ran.add(query);
			for (const fault of faultsOf(query, columns)) wrong.add(`${query.at}  ${fault}`);
		}
	}
	for (const query of queries) if (!ran.has(query)) wrong.add(`${query.at}  no test ran it`);
	return { wrong: [...wrong].sort(), ran: ran.size };
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
	const queries = typedQueries('src/lib/server');
	const { wrong, ran } = wrongRows(queries, watched(process.argv[2] ?? '.test/rows'));
	for (const line of wrong) console.log(line);
	console.log(`${ran} of ${queries.length} queries whose rows have a type ran; ${wrong.length} faults`);
	process.exit(wrong.length || !queries.length ? 1 : 0);
}
