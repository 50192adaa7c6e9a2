// Where links that people write may lead: to a path of this site, or openly elsewhere. Browsers read a backslash as a slash and leave out tabs
// and line breaks (URL Standard, 4.4), so that “/\evil.example” and “/<tab>/evil.example” are addresses of another site.

/** A path of this site with what follows it. */
const own = '/(?![/\\\\])[^\\\\\\p{Cc}]*';
/** As patterns of schemas: any link, and those that leave out what is no place of the web. */
export const linkPattern = `^(?:https?://[^\\p{Cc}]+|mailto:[^\\p{Cc}]+|tel:[^\\p{Cc}]+|${own}|#[^\\p{Cc}]*)$`;
export const targetPattern = `^(?:https?://[^\\s\\p{Cc}]+|(?:${own})(?<!\\s))$`;

const [link, ownPath] = [new RegExp(linkPattern, 'u'), new RegExp(`^${own}$`, 'u')];

/** Whether a text may stand as the address of a link. */
export const isLink = (text: string): boolean => link.test(text);
/** Whether a text is a path of this site, whatever a browser makes of it. */
export const isOwnPath = (text: string): boolean => ownPath.test(text);
