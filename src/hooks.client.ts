import { takeOver } from '$lib/ui/placing/rendered';

export const init = takeOver;
