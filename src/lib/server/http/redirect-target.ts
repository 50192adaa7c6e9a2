// Where to go on after signing in.
import { isOwnPath } from '#core/text/link';

/** Only a path of this site: anything else could lead a reader away under our name. */
export const redirectTarget = (to: string | null): string | null => (to && isOwnPath(to) ? to : null);
