// Brings up to date what is shown. Kit drops a navigation that is under way as soon as data is asked for anew: whoever has just pressed a
// link goes first, and what they come to is brought up to date.
import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

export async function refresh(): Promise<void> {
	await navigating.complete?.catch(() => {});
	await invalidateAll();
}
