// Every operation of the API; a test compares them with the routes there are.
import { accessOperations } from '../access/contract';
import { documentsOperations } from '../documents/contract';
import { intakeOperations } from '../intake/contract';
import { peopleOperations } from '../people/contract';
import { placingOperations } from '../placing/contract';
import { readershipOperations } from '../readership/contract';
import { siteOperations } from '../site/contract';
import { closed, type Operation } from './contract';

const all = [
	...documentsOperations,
	...intakeOperations,
	...accessOperations,
	...peopleOperations,
	...placingOperations,
	...readershipOperations,
	...siteOperations
] as const satisfies readonly Operation[];

/** Every operation by how it is called, as `get /documents/{slug}`: what it takes and gives, for whoever calls it. */
export type Operations = { [One in (typeof all)[number] as `${One['method']} ${One['path']}`]: One };

export const operations: readonly Operation[] = all.map((o: Operation) => ({ ...o, answer: o.answer && closed(o.answer) }));
