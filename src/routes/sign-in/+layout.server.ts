import type { LayoutServerLoad } from './$types';
import { told } from '#core/words/told';

export const load: LayoutServerLoad = ({ locals }) => ({ account: told[locals.language].account });
