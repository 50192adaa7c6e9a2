// A rule of lint: what TypeScript is told rather than shown has its reason beside it, in a comment on the line or the one before.
// An element at an index needs none: that it is there is what the loop or the pattern around it says.

/** @param {import('estree').Node & Record<string, any>} node what stands before the "!" */
const isElement = (node) =>
	(node.type === 'MemberExpression' && node.computed) ||
	(node.type === 'CallExpression' && node.callee.type === 'MemberExpression' && node.callee.property.name === 'at');

/** @type {import('eslint').Rule.RuleModule} */
const reasons = {
	meta: { type: 'problem', schema: [], messages: { none: 'Say beside “{{what}}” why it holds, or do without.' } },
	create(context) {
		const commented = new Set();
		for (const { loc } of context.sourceCode.getAllComments()) if (loc) for (let line = loc.start.line; line <= loc.end.line + 1; line++) commented.add(line);
		const check = (node, what) => {
			if (!commented.has(node.loc.start.line) && !commented.has(node.loc.end.line)) context.report({ node, messageId: 'none', data: { what } });
		};
		return {
			TSNonNullExpression: (node) => isElement(node.expression) || check(node, '!'),
			'TSAsExpression > TSAsExpression > TSUnknownKeyword': (node) => check(node, 'as unknown as')
		};
	}
};

export default { rules: { reasons } };
