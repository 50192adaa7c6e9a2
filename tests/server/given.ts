// The application that this test has to itself, of those that setup.ts started.
import { inject } from 'vitest';

export const given = inject('given')[Number(process.env.VITEST_POOL_ID) - 1]!;
