// The headings of pages that begin as a pattern, in the languages of sites.
import type { Language } from './words';

export interface PatternWords {
	/** Of a newsletter. */
	readonly inThisIssue: string;
	readonly dates: string;
	readonly toRead: string;
	/** Of minutes, and of the table in them. */
	readonly present: string;
	readonly decided: string;
	readonly toDo: string;
	readonly who: string;
	readonly what: string;
	readonly until: string;
	readonly asSigned: string;
	/** Of a notice. */
	readonly changes: string;
	readonly when: string;
	readonly whom: string;
	readonly inFull: string;
	/** Of a page that a teaser leads to. */
	readonly readHere: string;
	readonly more: string;
}

export const patternWords: Record<Language, PatternWords> = {
	en: {
		inThisIssue: 'In this issue',
		dates: 'Dates',
		toRead: 'To read',
		present: 'Present',
		decided: 'Decided',
		toDo: 'To be done',
		who: 'Who',
		what: 'What',
		until: 'Until',
		asSigned: 'The minutes as signed',
		changes: 'What changes',
		when: 'From when until when',
		whom: 'Whom to ask',
		inFull: 'The notice in full',
		readHere: 'Read it here',
		more: 'More to read'
	},
	de: {
		inThisIssue: 'In dieser Ausgabe',
		dates: 'Termine',
		toRead: 'Zum Lesen',
		present: 'Anwesend',
		decided: 'Beschlossen',
		toDo: 'Zu erledigen',
		who: 'Wer',
		what: 'Was',
		until: 'Bis',
		asSigned: 'Das unterschriebene Protokoll',
		changes: 'Was sich ändert',
		when: 'Von wann bis wann',
		whom: 'Wen man fragt',
		inFull: 'Die Bekanntmachung im Wortlaut',
		readHere: 'Hier lesen',
		more: 'Mehr zu lesen'
	},
	fr: {
		inThisIssue: 'Dans ce numéro',
		dates: 'Dates',
		toRead: 'À lire',
		present: 'Présents',
		decided: 'Décisions',
		toDo: 'À faire',
		who: 'Qui',
		what: 'Quoi',
		until: 'Jusqu’au',
		asSigned: 'Le procès-verbal signé',
		changes: 'Ce qui change',
		when: 'De quand à quand',
		whom: 'À qui s’adresser',
		inFull: 'L’avis en entier',
		readHere: 'À lire ici',
		more: 'À lire aussi'
	},
	es: {
		inThisIssue: 'En este número',
		dates: 'Fechas',
		toRead: 'Para leer',
		present: 'Asistentes',
		decided: 'Acuerdos',
		toDo: 'Por hacer',
		who: 'Quién',
		what: 'Qué',
		until: 'Hasta',
		asSigned: 'El acta firmada',
		changes: 'Qué cambia',
		when: 'Desde cuándo y hasta cuándo',
		whom: 'A quién preguntar',
		inFull: 'El aviso completo',
		readHere: 'Leer aquí',
		more: 'Más para leer'
	},
	pl: {
		inThisIssue: 'W tym numerze',
		dates: 'Terminy',
		toRead: 'Do przeczytania',
		present: 'Obecni',
		decided: 'Postanowiono',
		toDo: 'Do zrobienia',
		who: 'Kto',
		what: 'Co',
		until: 'Do kiedy',
		asSigned: 'Podpisany protokół',
		changes: 'Co się zmienia',
		when: 'Od kiedy do kiedy',
		whom: 'Kogo pytać',
		inFull: 'Pełna treść ogłoszenia',
		readHere: 'Przeczytaj tutaj',
		more: 'Więcej do czytania'
	},
	ar: {
		inThisIssue: 'في هذا العدد',
		dates: 'مواعيد',
		toRead: 'للقراءة',
		present: 'الحاضرون',
		decided: 'ما تقرر',
		toDo: 'ما يجب إنجازه',
		who: 'من',
		what: 'ماذا',
		until: 'حتى',
		asSigned: 'المحضر الموقَّع',
		changes: 'ما الذي يتغير',
		when: 'من متى إلى متى',
		whom: 'من يُسأل',
		inFull: 'الإعلان كاملًا',
		readHere: 'اقرأه هنا',
		more: 'المزيد للقراءة'
	}
};
