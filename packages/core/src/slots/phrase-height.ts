// A height that is said with a width, in English or German: "full width, at most 70vh high", "höchstens 480 px hoch". It is
// taken out before the width is read.
import type { Tallest } from '../contract/index.ts';

export interface SaidHeight {
  /** What is left: the width. */
  text: string;
  /** null where no height was said; `cut` is null where it was not said how the picture fits. */
  height: (Omit<Tallest, 'cut'> & { cut: boolean | null }) | null;
}

/** A height of this many px and more is no limit; as a part of the window, of this many hundredths. */
export const TALLEST_MOST = { px: 20_000, vh: 1000 } as const;

const FIGURE = '(\\d{1,5}(?:[.,]\\d{1,4})?)';
const MOST =
  '(?:at most|up to|max(?:imum|imal)?\\.?|(?:no|never|not) (?:taller|higher|more) than|limited to|with|höchstens|bis zu|(?:nicht|nie) (?:höher|mehr) als)';
const HIGH = '(?:high|tall|in height|hoch|höhe)';
const OF_WINDOW =
  "(?:(?:of )?(?:the )?(?:window|screen|viewport)(?:['’]?s)?[ -]height|(?:of )?the height of the (?:window|screen|viewport)|(?:der |von der )?(?:fenster|bildschirm)höhe)";
/** What may stand between the width and the height, and around it. */
const lead = (said: string): RegExp =>
  new RegExp(`(?:^|[,;]? +|[,;])(?:(?:and|but|und|aber) )?${said}`, 'iu');

type Unit = Tallest['unit'];
const read = (figure: string): number => Number(figure.replace(',', '.'));

const PARTS: Record<string, number> = {
  ...{ half: 50, 'two thirds': 66.6667, 'three quarters': 75, 'a third': 33.3333 },
  ...{ halbe: 50, 'die halbe': 50, 'zwei drittel': 66.6667, 'drei viertel': 75, 'ein drittel': 33.3333 },
};

/** Ways to say a height; each with its unit, and what its figure means. */
const WAYS: readonly { way: RegExp; unit: Unit; height: (figure: string) => number }[] = [
  {
    way: lead(`(?:max(?:imum)?[ -]height:?|maximalhöhe:?)(?: of| von)? ${FIGURE} ?[sld]?vh`),
    unit: 'vh',
    height: read,
  },
  { way: lead(`(?:${MOST} )?${FIGURE} ?[sld]?vh(?: ${HIGH})?(?! ?\\p{L})`), unit: 'vh', height: read },
  {
    way: lead(`(?:${MOST} )?${FIGURE} ?(?:%|per ?cent|prozent) ${OF_WINDOW}(?: ${HIGH})?`),
    unit: 'vh',
    height: read,
  },
  {
    way: lead(`(?:${MOST} )?(${Object.keys(PARTS).join('|')}) (?:of )?${OF_WINDOW}(?: ${HIGH})?`),
    unit: 'vh',
    height: (part) => PARTS[part.toLowerCase()]!,
  },
  {
    way: lead(
      `(?:${MOST} )?(?:as (?:high|tall) as the (?:window|screen)|so hoch wie (?:das fenster|der bildschirm))()`,
    ),
    unit: 'vh',
    height: () => 100,
  },
  { way: lead(`(?:${MOST} )${FIGURE} ?(?:px|pixels?)? ${HIGH}(?!\\p{L})`), unit: 'px', height: read },
  {
    way: lead(`(?:max(?:imum)?[ -]height:?|maximalhöhe:?)(?: of| von)? ${FIGURE} ?(?:px|pixels?)?`),
    unit: 'px',
    height: read,
  },
];

const CUT =
  /,? ?(?:and |und )?\b(?:cut(?: off| to it)?|cropped|covered|cover|abgeschnitten|beschnitten|angeschnitten)$/iu;
const WHOLE =
  /,? ?(?:and |und )?\b(?:(?:seen |kept |shown |all )?whole|uncropped|contained|contain|ganz (?:zu sehen|sichtbar)|unbeschnitten)$/iu;

/** Within parentheses a height is part of a CSS expression. */
const isInside = (before: string): boolean => before.split('(').length !== before.split(')').length;

/** Takes a height out of what was said of a width. */
export function withoutHeight(said: string): SaidHeight {
  const plain = said.replace(/\s+/g, ' ').trim();
  const cut = CUT.test(plain) ? true : WHOLE.test(plain) ? false : null;
  const text = cut === null ? plain : plain.replace(cut ? CUT : WHOLE, '');
  for (const { way, unit, height } of WAYS) {
    const found = way.exec(text);
    if (!found || isInside(text.slice(0, found.index))) continue;
    const value = height(found[1] ?? '');
    if (!(value > 0 && value <= TALLEST_MOST[unit])) continue;
    const rest = `${text.slice(0, found.index)}${text.slice(found.index + found[0].length)}`;
    return { text: rest.replace(/^[,; ]+|[,; ]+$/g, ''), height: { height: value, unit, cut } };
  }
  return { text: said, height: null };
}
