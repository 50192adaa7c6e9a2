// Where links that people write may lead: to a path of this site, or openly elsewhere. Browsers read a backslash as a slash and leave out tabs
// and line breaks (URL Standard, 4.4), so that “/\evil.example” and “/<tab>/evil.example” are addresses of another site.
import { breaks } from './line';

/** A path of this site with what follows it. */
const own = `/(?![/\\\\])[^\\\\${breaks}]*`;
const rest = `[^${breaks}]`;
/** As patterns of schemas: any link, and the targets of buttons, which have no spaces. */
export const linkPattern = `^(?:https?://${rest}+|mailto:${rest}+|tel:${rest}+|${own}|#${rest}*)$`;
export const targetPattern = `^(?:https?://[^\\s${breaks}]+|/(?![/\\\\])[^\\s\\\\${breaks}]*)$`;

const [link, ownPath] = [new RegExp(linkPattern), new RegExp(`^${own}$`)];

/** Whether a text may stand as the address of a link. */
export const isLink = (text: string): boolean => link.test(text);
/** Whether a text is a path of this site, whatever a browser makes of it. */
export const isOwnPath = (text: string): boolean => ownPath.test(text);
