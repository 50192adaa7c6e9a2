// Ids are UUIDv7: they sort by the time at which they were made.
import { v7 } from 'uuid';

export const newId = (): string => v7();
