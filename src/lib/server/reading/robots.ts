// Robots by what they call themselves: two published lists, isbot and crawler-user-agents. How one behaves is looked at when counting.
import crawlers from 'crawler-user-agents';
import { isbot } from 'isbot';

const named = new RegExp(crawlers.map((c) => c.pattern).join('|'));

/** What came out for so many agents: they are few, and both lists together take a twentieth of the time of a small file's delivery. */
const mostKnown = 2_000;
const known = new Map<string, boolean>();

/** Whether a User-Agent header is that of a robot. */
export function isRobot(agent: string): boolean {
	let robot = known.get(agent);
	if (robot === undefined) {
		robot = isbot(agent) || named.test(agent);
		if (known.size >= mostKnown) known.clear();
		known.set(agent, robot);
	}
	return robot;
}
