// What cameras and programs write into files of their own accord, where words of a person are looked for.
import { isPlaceholder, looksLikeFileName } from './checks/absent.ts';
import { bookFor, CHECKED_LANGUAGES } from './data/languages.ts';
import { wordsOf } from './text/text.ts';

/** Who writes more than so many words means something by them. */
const MOST_WORDS = 9;

/** What devices say of themselves beside their name. */
const DEVICE_WORDS = new Set(
  `digital still video camera cam phone smartphone mobile tablet scanner scan scanned image picture photo
   photograph jpeg jpg png tiff raw file original default exif version model make corporation corp co inc ltd gmbh
   the by from a an with on by using and`.split(/\s+/),
);

/** What programs leave where nobody wrote anything. */
const NOTHING = new Set(
  `untitled unnamed unknown undefined none null empty blank default description caption title comment comments
   headline subject user owner author artist photographer ohne titel unbenannt unbekannt keine beschreibung titel`.split(
    /\s+/,
  ),
);

/** "… DIGITAL CAMERA", as cameras shout it. */
const SHOUTED = /^[^\p{Ll}]{1,60}\bDIGITAL (?:STILL )?CAMERA$/u;
/** "Created with …": a person may say so of a jug, but of no version and no address. */
const MADE_BY =
  /^(?:creat(?:ed|or)|made|generated|edited|processed|exported|saved|scanned|produced|converted|optimi[sz]ed|erstellt|bearbeitet)\b/i;
const OF_A_PROGRAM = /\bv?\d+\.\d+|\bversion\b|www\.|https?:|[™®©]|\((?:tm|r)\)/i;

/**
 * True for what a device or a program wrote of itself, and for stand-ins such as "Untitled": it says nothing of the picture.
 * @param makers what the file says of its camera and of the programs that it went through
 */
export function isFiller(text: string, makers: readonly string[] = []): boolean {
  const said = text.trim();
  const words = wordsOf(said.toLowerCase());
  if (words.length === 0) return true;
  if (SHOUTED.test(said) || /^creator:/i.test(said) || looksLikeFileName(said, '')) return true;
  if (words.length > MOST_WORDS) return MADE_BY.test(said) && OF_A_PROGRAM.test(said);
  const own = new Set(makers.flatMap((maker) => wordsOf(maker.toLowerCase())));
  if (MADE_BY.test(said) && (OF_A_PROGRAM.test(said) || words.some((word) => own.has(word)))) return true;
  if (words.every((word) => NOTHING.has(word))) return true;
  const named = words.some((word) => own.has(word));
  if (named && words.every((word) => own.has(word) || DEVICE_WORDS.has(word) || /\d/.test(word))) return true;
  return CHECKED_LANGUAGES.some((language) => isPlaceholder(said, bookFor(language)));
}
