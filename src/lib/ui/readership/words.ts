// Words for what stands in the ledger.

export const kindWords: Record<string, string> = {
	opened: 'Opened',
	saved: 'Saved',
	printed: 'Printed',
	read: 'Read',
	knocked: 'Knocked',
	'turned-away': 'Turned away',
	'key-used': 'Key used',
	reminded: 'Reminded',
	news: 'Told of it as news',
	receipt: 'Receipt given'
};

export const reasonWords: Record<string, string> = {
	shut: 'the door is shut',
	'set-aside': 'set aside',
	'not-yet': 'not open yet',
	closed: 'closed since',
	'sign-in': 'not signed in',
	'not-admitted': 'not among those admitted',
	'membership-not-yet': 'membership not begun',
	'membership-lapsed': 'membership lapsed',
	'key-withdrawn': 'key withdrawn',
	'key-lapsed': 'key lapsed',
	'key-used-up': 'key used up',
	'key-password': 'password of the key not given',
	'save-not-allowed': 'saving not allowed',
	'print-not-allowed': 'printing not allowed'
};

/** Said above figures of which some are missing. */
export const notWholeWords = 'These figures are being made anew from the ledger and are not whole yet. Look again in a few minutes.';
