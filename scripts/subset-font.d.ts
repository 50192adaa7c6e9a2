// subset-font comes without types; this is as much of it as is used.
declare module 'subset-font' {
	/** The font with only what the characters of `text` need. */
	export default function subset(font: Uint8Array, text: string, options: { targetFormat: 'woff2' }): Promise<Uint8Array>;
}
