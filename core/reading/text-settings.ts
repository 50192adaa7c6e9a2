// How the reading text is set: chosen by links, so without script too, and kept in a cookie.

export const textSettings = {
	size: ['small', 'normal', 'large', 'largest'],
	spacing: ['normal', 'wide'],
	width: ['narrow', 'normal', 'wide'],
	paper: ['day', 'straw', 'night']
} as const;
export type TextSetting = keyof typeof textSettings;
export type TextSettings = { readonly [Name in TextSetting]: (typeof textSettings)[Name][number] };
export const textSettingNames = Object.keys(textSettings) as TextSetting[];

/** As it is set until somebody chooses; the paper goes by the reader's light or dark. */
export const usualText: Omit<TextSettings, 'paper'> & { readonly paper: null } = { size: 'normal', spacing: 'normal', width: 'normal', paper: null };
export type ChosenText = Omit<TextSettings, 'paper'> & { readonly paper: TextSettings['paper'] | null };

/** What is asked for, each setting for itself, else what was kept ('large.wide.normal.straw'), else the usual. */
export function textSettingsOf(asked: (name: string) => string | null, kept: string | null | undefined): ChosenText {
	const parts = (kept ?? '').split('.');
	const one = <Name extends TextSetting>(name: Name): TextSettings[Name] | (typeof usualText)[Name] => {
		const allowed: readonly string[] = textSettings[name];
		for (const value of [asked(name), parts[textSettingNames.indexOf(name)]]) if (value && allowed.includes(value)) return value as TextSettings[Name];
		return usualText[name];
	};
	return { size: one('size'), spacing: one('spacing'), width: one('width'), paper: one('paper') };
}

/** What is kept of a choice. */
export const keptText = (settings: ChosenText): string => textSettingNames.map((name) => settings[name] ?? '').join('.');
