// Types of the element that ianua-document.js defines, for websites written in TypeScript.

export interface IanuaDocumentEvents {
	/** The first page is there. */
	'ianua:opened': CustomEvent<{ document: string; pages: number }>;
	/** Somebody came to a page; pages are counted from 1. */
	'ianua:page': CustomEvent<{ document: string; page: number; pages: number }>;
	/** Somebody saves a copy. */
	'ianua:saved': CustomEvent<{ document: string }>;
	/** How high a frame that shows no document is, in CSS px. */
	'ianua:resize': CustomEvent<{ height: number }>;
	/** Why a pass did not let somebody in: for the website's developer. */
	'ianua:refused': CustomEvent<string>;
}

/** A document of an Ianua site on any website; each attribute as a string. */
export interface IanuaDocumentElement extends HTMLElement {
	addEventListener<E extends keyof IanuaDocumentEvents>(
		type: E,
		listener: (event: IanuaDocumentEvents[E]) => void,
		options?: boolean | AddEventListenerOptions
	): void;
	addEventListener<E extends keyof HTMLElementEventMap>(
		type: E,
		listener: (event: HTMLElementEventMap[E]) => void,
		options?: boolean | AddEventListenerOptions
	): void;
}

export interface IanuaDocumentAttributes {
	/** The document's address, `https://site/d/slug`. */
	src: string;
	form?: 'text' | 'button' | 'cover' | 'card' | 'frame';
	press?: 'page' | 'over' | 'tab' | 'here' | 'save';
	words?: string;
	/** Of a cover in px; of a frame in px or %. */
	width?: string;
	/** Of a frame, px; worked out from the page's own shape where it is not said. */
	height?: string;
	/** The page that it opens on. */
	start?: string;
	theme?: 'system' | 'light' | 'dark';
	/** Of its tools, and of a button: six hexadecimal digits. */
	colour?: string;
	/** Behind the pages by day. */
	background?: string;
	way?: 'down' | 'across' | 'tiled' | 'one-by-one' | 'book' | 'turning';
	fit?: string;
	tools?: string;
	/** The words of the button that closes what was opened over the page. */
	close?: string;
	/** An address of the website at which its server answers a pass. */
	pass?: string;
}

/** The documents of a site that are open and listed, on any website; each attribute as a string. */
export interface IanuaListAttributes {
	/** The site, `https://site`. */
	src: string;
	/** Of these folders, or with these topics; several told apart by semicolons. All there are where neither is said. */
	folder?: string;
	topic?: string;
	order?: 'title' | '-changed' | 'folder' | '-pages';
	/** So many and no more, at most 60; all of them, some at a time, where it is not said. */
	most?: string;
	show?: 'list' | 'covers' | 'cards';
	press?: IanuaDocumentAttributes['press'];
	/** The words of the button that shows more, and of a list without documents. */
	more?: string;
	none?: string;
}

declare global {
	interface HTMLElementTagNameMap {
		'ianua-list': HTMLElement;
		'ianua-document': IanuaDocumentElement;
	}
}
