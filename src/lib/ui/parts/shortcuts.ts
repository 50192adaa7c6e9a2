// Shortcuts never fire while somebody types, nor with a modifier held.

/** True where a key pressed belongs to what has the focus. */
export function isTyping(event: KeyboardEvent): boolean {
	if (event.ctrlKey || event.metaKey || event.altKey) return true;
	const target = event.target as HTMLElement | null;
	return Boolean(target?.closest('input, textarea, select, [contenteditable="true"], dialog'));
}

export const shortcutWords: readonly (readonly [string, string])[] = [
	['/', 'Find'],
	['b', 'Bring in'],
	['d', 'Door of the chosen document'],
	['p', 'Where the chosen document is placed'],
	['k', 'Issue a key for the chosen document'],
	['t', 'Try its door'],
	['r', 'Readership of the chosen document'],
	['↑ ↓', 'Move in a list'],
	['Shift ↑ ↓', 'Move and choose'],
	['x', 'Choose the row, or let it go'],
	['Ctrl a', 'Choose all on the page'],
	['Enter', 'Open'],
	['Esc', 'Close'],
	['1 – 5', 'The rooms'],
	['?', 'All shortcuts']
];
