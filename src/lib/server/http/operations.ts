// Every operation of the API; a test compares them with the routes there are.
import { accessOperations } from '../access/contract';
import { documentsOperations } from '../documents/contract';
import { intakeOperations } from '../intake/contract';
import { peopleOperations } from '../people/contract';
import { placingOperations } from '../placing/contract';
import { readershipOperations } from '../readership/contract';
import { siteOperations } from '../site/contract';
import { closed, type Operation } from './contract';

const all: readonly Operation[] = [
	...documentsOperations,
	...intakeOperations,
	...accessOperations,
	...peopleOperations,
	...placingOperations,
	...readershipOperations,
	...siteOperations
];

export const operations: readonly Operation[] = all.map((o) => ({ ...o, answer: o.answer && closed(o.answer) }));
