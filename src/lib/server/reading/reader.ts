// The random id in a visitor's reader cookie: it says that two requests are one reader's, and nothing else.
import { randomUUID } from 'node:crypto';

export const newReaderId = (): string => randomUUID();
