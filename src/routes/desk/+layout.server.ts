import type { LayoutServerLoad } from './$types';
import { settings } from '$lib/server/settings';

export const load: LayoutServerLoad = () => ({ maxUpload: settings().IANUA_MAX_UPLOAD });
