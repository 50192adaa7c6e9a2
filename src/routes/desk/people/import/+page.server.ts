// The groups that a table of members can name.
import type { PageServerLoad } from './$types';
import { listGroups } from '$lib/server/people/service';

export const load: PageServerLoad = async () => ({ groups: (await listGroups()).map(({ slug, name }) => ({ slug, name })) });
