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

/** The operations by what they are about, in the order in which one learns them. */
export const subjects: readonly { readonly name: string; readonly words: string; readonly operations: readonly Operation[] }[] = [
	{ name: 'Documents', words: 'Documents, their editions, folders, topics and fields; lists and find', operations: documentsOperations },
	{ name: 'Intake', words: 'Files on their way in', operations: intakeOperations },
	{ name: 'Access', words: 'Decisions, keys, knocks, and websites that give passes', operations: accessOperations },
	{ name: 'People', words: 'Members, groups and tokens', operations: peopleOperations },
	{ name: 'Placing', words: 'Pages, placements, the navigation and former addresses', operations: placingOperations },
	{ name: 'Readership', words: 'The ledger, reports, and programs that are told what happens', operations: readershipOperations },
	{ name: 'Site', words: 'What holds for the whole site', operations: siteOperations }
];
