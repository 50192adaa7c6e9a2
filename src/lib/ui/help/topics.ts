// The handbook of the desk: a topic a job, for whoever does it the first time. What stands between ** is called so on the screen; a test holds
// these names against the screens.

export interface Topic {
	readonly slug: string;
	readonly title: string;
	/** What it is good for. */
	readonly lead: string;
	/** What is done, in its order. */
	readonly steps: readonly string[];
	/** What else is good to know. */
	readonly notes?: readonly string[];
	/** Topics beside it. */
	readonly beside?: readonly string[];
	/** Where it is done. */
	readonly at: string;
	/** Other words that somebody may look for it by. */
	readonly words?: string;
}

export const topics: readonly Topic[] = [
	{
		slug: 'bring-in',
		title: 'Bring documents in',
		lead: 'A PDF becomes a document: with a title, an address that lasts, a cover, and words that can be found.',
		steps: [
			'Drop the file anywhere on the desk, or press **Bring in** and choose it. Many at once are fine; **More ways** takes a folder of the computer, or a PDF from its address on the web.',
			'The tray at the foot says how far each is, and what to do where one is refused. You can go on working meanwhile.',
			'A single file opens its sheet as soon as it is in. Give it its title there; the address follows from it.'
		],
		notes: [
			'A new document is shut: nobody but staff can open it until you set its door.',
			'A file that is here already is recognised; you are asked whether to open the one that is there, use it as a new edition, or bring it in all the same.'
		],
		beside: ['door', 'place', 'new-edition'],
		at: '/desk/documents',
		words: 'upload file import folder web'
	},
	{
		slug: 'door',
		title: 'Say who may open it',
		lead: 'Every document and every page has a door in one of four positions.',
		steps: [
			'Open the document’s sheet and go to its station **Door**.',
			'Choose **Shut** (staff alone), **Keyed** (those whom you name), **Ajar** (whoever has the address) or **Open** (everybody, found by search engines too).',
			'At a keyed door press the groups it admits, **All members**, or type a person’s mail address under **Admit a person by e-mail**.',
			'**From** and **Until** give the door a beginning and an end, with a time if you like. **Save** and **Print** say what somebody let in may do besides reading.',
			'**Announced** lets everybody know that something keyed is there: its title, its description and for whom it is kept, and nothing more.',
			'Read the sentence beneath: it says in full who may do what. **Try the door** shows it as a visitor, a member or the holder of a key would see it.'
		],
		notes: [
			'The same decision holds for the file, its cover, its pages and its words: there is no second address by which it could be had.',
			'A document can follow a page: then the page’s door is its door, and opens and shuts with it.',
			'With saving off, pages are shown as pictures and the file never leaves. It cannot keep anybody from photographing the screen.'
		],
		beside: ['keys', 'groups', 'try', 'many'],
		at: '/desk/documents',
		words: 'access permission protect private public password hide schedule'
	},
	{
		slug: 'place',
		title: 'Put a document on a page',
		lead: 'A placement shows a document on a page: as a text link, a button, a cover, a card or a frame to read in.',
		steps: [
			'Open the page in **Pages**. Click where it is to stand, or select the words that are to lead to it.',
			'Press **Place a document** (Alt and p), type a part of its title and press Enter. Or hold a PDF from the computer over the page: spots show where it can be let go, to stay shut or to follow the page.',
			'Beside the text choose its **Form** and what **A press** on it does: its document page, reading over the page, a new tab, the same tab, or saving.',
			'Look whether the page says that somebody would be turned away; one press mends it. Then **Publish**.'
		],
		notes: [
			'Selected words stay as they are and become the link. Ctrl and k asks where they lead: a document, a page or an address.',
			'On a document’s sheet **Place** puts it on several pages at once, each in a form of its own.',
			'A picture can lead to a document too: choose it and press **A document, a page or an address**.',
			'How each form looks unless it says otherwise is set once for the whole site in the settings, under **Placements**.'
		],
		beside: ['frame', 'dead-ends', 'publish', 'exchange'],
		at: '/desk/pages',
		words: 'link button cover card embed insert'
	},
	{
		slug: 'frame',
		title: 'Let it be read on the page itself',
		lead: 'A reading frame is the reading room within a page: leafing, finding, enlarging, without leaving.',
		steps: [
			'Place the document and choose the form **Reading frame**.',
			'Leave width and height to be **Worked out** from the shape of its pages, or type them: 700 for pixels, 100 % for the whole width.',
			'Choose which tools it shows; what you leave alone goes by the site’s reading rooms.'
		],
		notes: [
			'On a phone a frame becomes its cover with ways to read and to save, so that nobody scrolls within a scroll.',
			'Look at it in **Preview**, wide and as on a phone.'
		],
		beside: ['place', 'other-websites'],
		at: '/desk/pages',
		words: 'viewer iframe inline height width'
	},
	{
		slug: 'teaser',
		title: 'Lead from one page to another with a cover',
		lead: 'A teaser is a cover, a card, a button or words that lead to a page of the site and not to the document itself.',
		steps: [
			'In an article press **Teaser** where it is to stand, and choose the page. The first document of that page lends its cover.',
			'Or choose a placement that is there, and under **Leads to** a page in place of the document.',
			'A page that is published for the first time offers it by itself: **Put a teaser on the front page**.'
		],
		notes: [
			'Who may open the page decides whether a teaser leads there: its dead ends are told like those of documents.',
			'Whom the document turns away sees no cover, and is led to the page all the same. When the page’s path changes, its teasers go along.'
		],
		beside: ['place', 'publish'],
		at: '/desk/pages',
		words: 'front page preview thumbnail link cover'
	},
	{
		slug: 'catalogue',
		title: 'List documents on a page',
		lead: 'A catalogue lists documents by folder or topic and keeps itself up to date; a document list does the same among the words of an article.',
		steps: [
			'In **Pages** write a page with the layout Catalogue; or in an article press **Document list** where it is to stand.',
			'Under **What it lists** choose folders and topics, or pick documents by hand.',
			'Under **How** choose list, covers or table, the order, and whether visitors get **Filters and find above the list**.',
			'**Choosing a title shows the document beside the list** lets readers go through many without coming and going.'
		],
		notes: [
			'Each visitor sees only what they may open; staff see in the preview what a visitor sees. Nobody meets a dead end in a list.',
			'**At most** keeps a list short: the three newest notices on the front page.'
		],
		beside: ['publish', 'many'],
		at: '/desk/pages',
		words: 'library table archive'
	},
	{
		slug: 'pocket',
		title: 'A page for the pocket, behind a QR code',
		lead: 'A pocket page is a short list for phones: for a notice board, a boat, an open day.',
		steps: [
			'In **Pages** write a page with the layout Pocket page.',
			'Add documents and links; each entry has its words, an icon, and if you like days from which and until which it shows.',
			'Publish it, and take its QR code as **SVG** or **PNG** to print.'
		],
		notes: ['Move the day along above the list to see what stands there in a week.'],
		beside: ['publish', 'door'],
		at: '/desk/pages',
		words: 'mobile phone qr short'
	},
	{
		slug: 'publish',
		title: 'Publish, at once or at a time',
		lead: 'What you write is a draft and saved as you write. Visitors see what was published last.',
		steps: [
			'Look at it in **Preview**, as a visitor, a group or a given person; what you press there you press as them.',
			'Press **Publish**. The first time you are asked whether it stands in the navigation.',
			'For later, give a day and a time at **Publish at** and press **Set the time**; **Call it off** takes that back.',
			'What was published before is kept: **Compare** shows what changed, **Go back to it** makes it the draft again.'
		],
		notes: [
			'**Begin a page like this one** makes next month’s newsletter from this one. A new page can begin as **Newsletter**, **Minutes** or **Notice**, with headings to fill in.',
			'**Take down** leaves the draft; **Set aside** puts the page away for 30 days.'
		],
		beside: ['place', 'dead-ends'],
		at: '/desk/pages',
		words: 'draft schedule revision preview copy newsletter pattern template minutes notice'
	},
	{
		slug: 'dead-ends',
		title: 'When somebody would be turned away',
		lead: 'A dead end: somebody sees the page and cannot open what is placed on it. A side door: somebody cannot see the page and can open the document all the same.',
		steps: [
			'Both stand where they arise: in the page while you write, on the document’s sheet, and all of them in **Upkeep**.',
			'Read whom it concerns, and press what you mean: open the document to them, let it follow the page, narrow the page, show them a locked card, or take the placement out.',
			'Where it is meant to be so, say so, with a word why; then it is not asked about again.'
		],
		notes: ['Publishing asks only about what this publishing would make worse.'],
		beside: ['door', 'place', 'upkeep'],
		at: '/desk/upkeep',
		words: 'error 403 broken warning mismatch'
	},
	{
		slug: 'keys',
		title: 'Let somebody from outside in',
		lead: 'A key is an address that opens one document for whoever holds it, without a sign-in.',
		steps: [
			'On the document’s sheet say for whom it is at **A key for**: everything done with it stands under that name.',
			'If you like, give it a last day at **Good until**, a number of **Openings**, or a password.',
			'Copy the address and hand it on. It is shown this once.',
			'**Withdraw** ends it at once, also for whoever has the document open; **Undo** gives it back.'
		],
		notes: ['**Several at once** mails a key to each of several addresses. A shut door suspends every key. At **People**, **Keys** has all of them.'],
		beside: ['door', 'knocks', 'readers'],
		at: '/desk/documents',
		words: 'share guest external personal link'
	},
	{
		slug: 'groups',
		title: 'Members and groups',
		lead: 'Members sign in; groups are what keyed doors admit. A membership lasts from a day until a day.',
		steps: [
			'In **People** press a group to see who is in it, or **Make a group**.',
			'**Add a member** one by one, or bring in many **From a table** (CSV): its columns are recognised, and you see what would change before anything does. A table that is the whole list of its groups can end the memberships that it does not have.',
			'Press a name to change somebody, to lengthen a membership, or to see what they may open and what they opened.',
			'Tick several people to renew their memberships, to put them into a group or take them out, or to suspend them, all at once; it can be taken back.'
		],
		notes: [
			'Whoever lapses within 30 days, and who has lapsed, stands behind buttons of their own above the list.',
			'A membership that has run out opens nothing, from the first minute of the next day.'
		],
		beside: ['door', 'knocks'],
		at: '/desk/people',
		words: 'users accounts subscription tier import csv bulk several renew'
	},
	{
		slug: 'knocks',
		title: 'When somebody asks to be let in',
		lead: 'Whoever is turned away can knock: they say who they are and why, and you answer.',
		steps: [
			'Knocks that wait are named in **People** and in **Upkeep**.',
			'Put them in a group that the door admits, send them a key, or decline with a few words. They are told by mail.'
		],
		notes: ['Whether one may knock, and what those turned away read, is set for the site and, under **Turned away**, for a single document.'],
		beside: ['keys', 'groups'],
		at: '/desk/people/knocks',
		words: 'request approve refused'
	},
	{
		slug: 'new-edition',
		title: 'Put in a new edition',
		lead: 'A new file for the same document. Address, door, placements and history stay, and every place shows the new one.',
		steps: [
			'Drop the file on the document’s sheet, or press **Put in a new edition** there.',
			'It comes into force when it is checked. **What changed** compares the two, page by page.',
			'**Go back to it** puts a former edition in force again.'
		],
		notes: [
			'A document fetched from the web can be watched: where its source changes you are offered the new file, and nothing changes by itself. **See what changed** sets it beside yours before you take it.'
		],
		beside: ['bring-in', 'exchange'],
		at: '/desk/documents',
		words: 'replace update version'
	},
	{
		slug: 'exchange',
		title: 'Another document in its place',
		lead: 'Where one document gives way to another, on every page at once.',
		steps: [
			'On the sheet of the one that goes, press **Exchange** beside **Placed**.',
			'Type a part of the other’s title and press Enter. Drafts and published pages change together; **Undo** brings it all back.'
		],
		notes: ['Words, looks and doors stay as they are. Is it the same document in a newer version, put in a new edition instead.'],
		beside: ['new-edition', 'place'],
		at: '/desk/documents',
		words: 'replace swap everywhere'
	},
	{
		slug: 'many',
		title: 'Change many documents at once',
		lead: 'Folder, topics, doors and setting aside, for as many as you choose.',
		steps: [
			'Narrow the list by its filters, then choose rows by their boxes (or x), **Choose all** for everything that fits.',
			'In the bar at the foot **Move** them to a folder, **Add** or **Take away** a topic, fill in **Fields**, set their **Door**, **Place on pages**, or **Set aside**.',
			'**Keys** mails a key to each of them to a list of addresses, one mail each; **Save as one zip** takes the files away together.',
			'One **Undo** brings all of them back.'
		],
		notes: [
			'What came in together is chosen by one press in the tray. A folder that is dropped gives its name to the documents in it.',
			'Filters you come back to can be kept under a name: **Saved**.'
		],
		beside: ['door', 'bring-in'],
		at: '/desk/documents',
		words: 'bulk batch mass zip download keys'
	},
	{
		slug: 'fields',
		title: 'Say more of documents than title and topics',
		lead: 'Fields are particulars of your own: a department, a closing date, a number, a link.',
		steps: [
			'An owner makes them in the settings, at **Fields of documents, and their page**, and says which are shown in lists and which narrow them.',
			'Fill them in on a document’s sheet; for many at once in the bar under the list, at **Fields**; or from a table, at **More ways**.',
			'They stand on the document’s page, are found, and catalogues can list by them.'
		],
		notes: [
			'The page of a document can have its particulars with the document below to read in place: a choice in the same part of the settings.',
			'A field that is taken away keeps what documents say in it: with undo it is there again.'
		],
		beside: ['many', 'catalogue'],
		at: '/desk/documents',
		words: 'particulars metadata properties department csv table import column'
	},
	{
		slug: 'other-websites',
		title: 'Show it on another website',
		lead: 'A link, a cover or a frame for a website that is not this one.',
		steps: [
			'On the sheet, at **On another website**, say which website will show it. Below it is chosen whether as a reading frame, a cover, a link or an element.',
			'**Allow and copy**, or **Copy the code** where it is allowed already, and paste it there. Or paste the document’s address alone: websites that understand oEmbed make a frame of it.',
			'A frame shows only on websites that an owner has allowed; all of them stand in the settings, under **Other websites**. Elsewhere it is a plain link.'
		],
		notes: ['The door decides there as it does here; every opening counts, with the website it came from.'],
		beside: ['frame', 'readers'],
		at: '/desk/documents',
		words: 'embed iframe code oembed external'
	},
	{
		slug: 'try',
		title: 'See it as somebody else would',
		lead: 'Before you say that it works: look as a visitor, a member, a group or the holder of a key.',
		steps: [
			'Press **Try the door**, at the top or on a sheet.',
			'Choose as whom, and when: a day to come is fine.',
			'You see the site as they would, wide or as on a phone, and why each thing is allowed or not. Nothing of it counts.'
		],
		beside: ['door', 'dead-ends'],
		at: '/desk/try',
		words: 'preview as visitor test impersonate'
	},
	{
		slug: 'readers',
		title: 'Who opened, read and saved it',
		lead: 'Every opening, reading, save, print and refusal is in the ledger; reports are made from it.',
		steps: [
			'**Readership** shows the whole site; a document’s own report is behind **Readership** on its sheet.',
			'Choose the time above. **As a table** and **Take away** give each figure as text, as CSV or as a picture.',
			'At a keyed document the **Roll call** names everyone who may open it, and who did; those who did not can be reminded by mail.',
			'**Receipt asked of members** on the sheet has those who read a document say so, once or for each edition: the roll call tells who has, and reminds who has not.',
			'**Mail me this report** sends it every week or month; **Tell me when it is first opened** once.'
		],
		notes: [
			'Staff count apart, robots not at all; two presses within thirty seconds are one opening, after the counting rules for electronic resources.',
			'How long names are kept is set by the owner in the settings.'
		],
		beside: ['keys', 'other-websites'],
		at: '/desk/readership',
		words: 'statistics analytics downloads count views report who'
	},
	{
		slug: 'upkeep',
		title: 'What needs a hand',
		lead: 'Dead ends, documents that cannot be shown, sources that changed, knocks, what was set aside: worst first.',
		steps: [
			'Go through **Upkeep** from the top; each line says what it is and has its remedies beside it.',
			'**Who changed what** has every change with before and after, by person, thing and day.',
			'**Whose copy is this?** tells to whom a stamped copy was given that turned up elsewhere.'
		],
		notes: [
			'What is set aside can be restored for 30 days; then its file goes, and its history stays.',
			'Owners are told here when the disk runs full, or when the last backup is more than a week old. Both are for whoever runs the machine: `ianua check` looks everything over, `ianua backup` makes one.'
		],
		beside: ['dead-ends', 'knocks'],
		at: '/desk/upkeep',
		words: 'maintenance trash restore audit delete'
	},
	{
		slug: 'former-addresses',
		title: 'Old links that live on',
		lead: 'Files lay somewhere before they came here, and others link to them there. Their former addresses lead to the documents for good.',
		steps: [
			'At **Upkeep**, open **Former addresses** and paste a line for each: the old address and the document, or choose a table with both.',
			'**Read its sitemap** finds the files of an old website whose names documents have here; a star in an address stands for many.',
			'Press **Look what would come of it**: it says what is new, what led elsewhere, and what cannot be.',
			'Have whoever looks after the old website’s name point it here. From then on its links lead on, and each says how often somebody came by it.',
			'Under **Asked for and not here** stands what was missed: say which document is meant and press **Lead there**.'
		],
		notes: ['A single one is written on the sheet, at Placed. Whoever may not know of a document is not led to it.'],
		beside: ['upkeep', 'other-websites'],
		at: '/desk/upkeep/former',
		words: 'redirects 301 moved website migration broken links'
	},
	{
		slug: 'everything',
		title: 'Take everything out, and in again',
		lead: 'The whole site in open formats: for another program, for an archive, or to move.',
		steps: [
			'Under **Settings**, at **Everything, to take away**, press **Take everything out**: one zip with the PDFs, lines of JSON, tables and a README.',
			'Whoever runs the server takes it in at another site by the command line, which says first what it would change.',
			'The same way takes in a folder of PDFs with a table about them: titles, folders, topics, fields, dates and the addresses they had.'
		],
		notes: ['Only owners can, and the trail of changes says so. It has the names of people and what they read: keep it as safe as a backup.'],
		beside: ['former-addresses', 'upkeep'],
		at: '/desk/settings',
		words: 'export import zip json csv migration archive'
	}
];

export const topicOf = (slug: string): Topic | undefined => topics.find((topic) => topic.slug === slug);

/** The topics that have every word of what is sought, those with it in the title first; all of them where nothing is sought. */
export function topicsFor(sought: string): readonly Topic[] {
	const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
	const has = (text: string) => words.every((word) => text.toLowerCase().includes(word));
	const inTitle = (topic: Topic) => has(`${topic.title} ${topic.words ?? ''}`);
	return topics
		.filter((topic) => has([topic.title, topic.lead, topic.words, ...topic.steps, ...(topic.notes ?? [])].join(' ')))
		.sort((a, b) => Number(inTitle(b)) - Number(inTitle(a)));
}

/** A sentence in parts: what is a name on the screen, and what is not. */
export const namesIn = (text: string): readonly { readonly text: string; readonly name: boolean }[] =>
	text
		.split(/\*\*(.+?)\*\*/)
		.map((part, i) => ({ text: part, name: i % 2 === 1 }))
		.filter((part) => part.text !== '');
