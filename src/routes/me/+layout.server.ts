import type { LayoutServerLoad } from './$types';
import { messages } from '#core/words/messages';

export const load: LayoutServerLoad = ({ locals }) => ({ account: messages[locals.language].account, news: messages[locals.language].news });
