// What charts share: colours from the tokens as they stand now, and painting anew when light turns dark.

/** A token's colour as it is computed: a canvas needs that. */
export function colour(token: string): string {
	const probe = document.createElement('span');
	probe.style.color = `var(${token})`;
	document.body.append(probe);
	const value = getComputedStyle(probe).color;
	probe.remove();
	return value;
}

/** Calls `paint` when the theme changes; gives what ends that. */
export function onTheme(paint: () => void): () => void {
	const themes = new MutationObserver(paint);
	themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
	const system = matchMedia('(prefers-color-scheme: dark)');
	system.addEventListener('change', paint);
	return () => {
		themes.disconnect();
		system.removeEventListener('change', paint);
	};
}
