// Sentences about a canal that never was, from which the longer documents are put together.
import { Random } from './random';
import type { Drawing, Section } from './pdf';

const sentences = [
	'The wardens walk the flight each morning and note the level at the upper gauge before the first boat is let through.',
	'Leave each gate closed and each paddle down, whatever you found.',
	'In a dry summer the pound between locks 6 and 7 falls by a hand in an hour when both paddles stand open.',
	'The towpath crosses by the turnover bridge, where the stone still shows the grooves of the lines.',
	'Volunteers meet at the old toll house at nine and are back by four; bring gloves and something hot to drink.',
	'A windlass left on a spindle will fly off when the pawl slips, and it has broken more than one wrist.',
	'Two boats can pass at the winding hole, but not in the cutting, where the one going up gives way.',
	'The aqueduct carries the canal forty feet over the Oxmere brook on five arches of the local limestone.',
	'Report a leak at once to the duty warden, with the number of the nearest bridge and the side it is on.',
	'The weir at Ternwell was rebuilt in the third year of the society, with timber from the estate.',
	'Stop planks are kept in racks at every second bridge and may be put in only by two wardens together.',
	'From November to March the feeder runs full, and the by-wash must be kept clear of leaves.',
	'Nobody enters a culvert alone, nor without a lamp, a line and somebody at the mouth who knows the time of return.',
	'The reservoir holds water for nine weeks of ordinary traffic without rain.',
	'Children are welcome on the towpath in the care of a grown-up and away from the lock side.',
	'Boats longer than fifty-seven feet turn only at Ternwell basin and above the top lock.'
];

/** A section with so many paragraphs of four to six sentences. */
export function section(heading: string, paragraphs: number, random: Random, drawing?: Drawing, from: readonly string[] = sentences): Section {
	return {
		heading,
		drawing,
		paragraphs: Array.from({ length: paragraphs }, () => {
			const order = [...from].sort(() => random.next() - 0.5);
			return order.slice(0, random.whole(4, 6)).join(' ');
		})
	};
}

export const german: readonly string[] = [
	'Vor der Schleuse wartet, wer bergauf fährt, bis das obere Tor geschlossen ist.',
	'Die Schützen werden langsam gezogen, damit das Boot nicht gegen die Mauer schlägt.',
	'Jedes Tor wird nach der Durchfahrt geschlossen, jedes Schütz herabgelassen.',
	'Kinder tragen Schwimmwesten und bleiben bei der Schleusung an Bord.',
	'Die Kurbel bleibt niemals auf der Spindel stecken, auch nicht für einen Augenblick.',
	'Im Winter sind die Schleusen des oberen Aufstiegs wegen Bauarbeiten gesperrt.',
	'Wer einen Schaden bemerkt, ruft den Wärter und nennt die Nummer der nächsten Brücke.'
];

export const french: readonly string[] = [
	'Avant d’entrer dans l’écluse, le bateau attend que les portes aval soient ouvertes.',
	'Les vannes se lèvent lentement afin que le bateau ne heurte pas le bajoyer.',
	'Chaque porte est refermée après le passage et chaque vanne est baissée.',
	'Les enfants portent un gilet et restent à bord pendant l’éclusage.',
	'La manivelle ne reste jamais sur son axe, pas même un instant.',
	'En hiver, les écluses de l’échelle supérieure sont fermées pour travaux.',
	'Celui qui remarque une fuite appelle l’éclusier et donne le numéro du pont le plus proche.'
];
