// Light, dark or as the system: kept in a cookie, so that the server draws the first page right.
export type Theme = 'system' | 'light' | 'dark';

/** Shows the theme at once and keeps it in this browser. */
export function setTheme(theme: Theme): void {
	document.documentElement.dataset.theme = theme;
	document.cookie = `ianua_theme=${theme}; path=/; max-age=31536000; samesite=lax`;
}
