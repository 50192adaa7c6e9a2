import { expect, it } from 'vitest';
import { byName } from './order';

it('titles stand as people look them up', () =>
	expect(['Lock 10', 'École', 'lock 9', 'Weir', 'Lock 2', 'eaves'].sort(byName)).toEqual(['eaves', 'École', 'Lock 2', 'lock 9', 'Lock 10', 'Weir']));
