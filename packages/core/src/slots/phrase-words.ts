// The words of a width, in one way to write them: small letters, lengths in px, parts of 1, counts as digits, English for
// German. What was taken for granted on the way is said.

/** Font size that lengths in em, rem and ch are read with, px: the initial one of every browser. */
const FONT = 16;
/** Width of a figure as a part of the font's size, where no font is at hand (CSS Values and Units 4, 6.1.1). */
const FIGURE = 0.5;

const NUMBERS: readonly (readonly string[])[] = [
  ['one', 'eins', 'eine', 'eines', 'einer'],
  ['two', 'zwei'],
  ['three', 'drei'],
  ['four', 'vier'],
  ['five', 'fünf'],
  ['six', 'sechs'],
  ['seven', 'sieben'],
  ['eight', 'acht'],
  ['nine', 'neun'],
  ['ten', 'zehn'],
  ['eleven', 'elf'],
  ['twelve', 'zwölf'],
];

/** German ways to say what English says, in this order. */
const GERMAN: readonly (readonly [RegExp, string])[] = [
  [
    /\b(?:nimmt|ist|soll|sollen|sein|steht|stehen|ein)(?=$|,)|\b(?:nimmt|ist|soll|sollen|steht|stehen|quadratisch(?:e[rsnm]?)?)\b/g,
    '',
  ],
  [/\bzu (?:(zweit)|(dritt)|(viert))(?: nebeneinander)?\b/g, '$1$2$3 nebeneinander'],
  [/\bzweit (?=neben)/g, '2 '],
  [/\bdritt (?=neben)/g, '3 '],
  [/\bviert (?=neben)/g, '4 '],
  [/\bauf kleinen (?:fenstern|bildschirmen|geräten)\b/g, 'on phones'],
  [/\btextbreite\b/g, 'textspalte'],
  [/\bbis (?=\d[\d.]* ?px \p{L})/gu, 'below '],
  [/\bfeste[rsnm]? (?:breite )?(?=\d|von)/g, 'always '],
  [/\b(?:(ein)|(zwei)|(drei)|(vier)|(fünf)|(sechs))spaltig\b/g, '$1$2$3$4$5$6 columns'],
  [/\bein columns\b/g, '1 columns'],
  [/\brandlos\b|\bvollbild(?: ?breite)?\b|\bbis zum rand\b|\bvon rand zu rand\b/g, 'full bleed'],
  [
    /\b(?:bild(?:er[ns]?|s|es)?|fotos?|kacheln?)\b|(?<![a-zäöüß])(?:quer )?über\b|\b(?:(?:schmale|linke|rechte|kleine|große)[rsnm]?(?= (?:text)?(?:spalte|seitenleiste|randspalte|bild|vorschaubild))|raster mit|zentriert|mittig|linksbündig|rechtsbündig)\b/g,
    '',
  ],
  [
    /\b(?:auf|bei|in|für|am|mobil)(?: (?:dem|den|einem))? (?:handys?|smartphones?|telefon(?:en)?|schmalen (?:fenstern|bildschirmen))\b/g,
    'on phones',
  ],
  [/\bauf(?: (?:dem|den))? tablets?\b/g, 'on tablets'],
  [
    /\b(?:auf|am|an)(?: (?:dem|den))? (?:desktops?|laptops?|rechnern?|großen bildschirmen|breiten fenstern)\b/g,
    'on desktop',
  ],
  [/\bzwei drittel[ns]?\b/g, 'two thirds'],
  [/\bdrei viertel[ns]?\b|\bdreiviertel\b/g, 'three quarters'],
  [/\b(?:ein(?:em)? )?drittel[ns]?\b/g, 'a third'],
  [/\b(?:ein(?:em)? )?viertel[ns]?\b/g, 'a quarter'],
  [/\b(?:ein(?:em)? )?fünftel[ns]?\b/g, 'a fifth'],
  [/\b(?:ein(?:em)? )?sechstel[ns]?\b/g, 'a sixth'],
  [/\b(?:die )?hälfte\b|\bhalb(?:e[rsnm]?)?\b/g, 'half'],
  [/\bso breit wie (?:der|ein) (?:text|fließtext)\b/g, 'as wide as the text'],
  [/\bso breit wie (?:das fenster|der bildschirm|die seite)\b/g, 'as wide as the window'],
  [/\bso breit wie möglich\b/g, 'as wide as possible'],
  [
    /\b(?:ganze|volle|gesamte) (?:fenster|bildschirm|seiten)breite\b|\b(?:volle|ganze|gesamte)[rn]? breite\b|\bganze[sn]? (?:fenster|bildschirm)\b|\bganz\b/g,
    'full width',
  ],
  [/\btextspalte\b/g, 'text column'],
  [/\b(?:seitenleiste|randspalte)\b/g, 'sidebar'],
  [/\b(?:vorschaubild|miniatur(?:bild)?)\b/g, 'thumbnail'],
  [/\bspalten\b/g, 'columns'],
  [/\b(?:spalte|seite|container|inhalt)\b/g, 'column'],
  [/\b(?:inhalts|seiten|spalten)breite\b/g, 'column'],
  [/\b(?:fenster|bildschirm)(?:s|es)?(?:breite)?\b/g, 'window'],
  [
    /\b(?:nebeneinander|in (?:einer|jeder) (?:reihe|zeile)|pro (?:reihe|zeile)|je (?:reihe|zeile))\b/g,
    'abreast',
  ],
  [/\b(?:untereinander)\b/g, '1 abreast'],
  [/\b(?:höchstens|maximal|bis zu|nicht (?:breiter|mehr) als|nie (?:breiter|mehr) als)\b/g, 'at most'],
  [/\b(?:mindestens|wenigstens|nicht (?:schmaler|weniger) als)\b/g, 'at least'],
  [/\bzwischen (?=\d)/g, 'between '],
  [/\bdazwischen\b/g, 'between'],
  [/\b(?:abstand|zwischenraum|lücke)\b/g, 'gap'],
  [
    /\b(?:rand|rändern) (?:auf|an) (?:beiden|jeder) seiten?\b|\b(?:auf|an) (?:beiden|jeder) seiten?\b/g,
    'at each side',
  ],
  [/\bzeichen\b/g, 'ch'],
  [/\bpixeln?\b/g, 'px'],
  [/\bprozent\b/g, '%'],
  [/\bbreite?[rsn]?\b/g, 'wide'],
  [/\b(?:immer|genau|fest)\b/g, 'always'],
  [/\b(?:sonst|ansonsten|darunter|darüber|davor|danach)\b/g, 'otherwise'],
  [/\b(?:unter|unterhalb(?: von)?)(?= \d)/g, 'below'],
  [/\bab(?= \d)/g, 'from'],
  [/\bund\b/g, 'and'],
  [/\baber\b/g, 'but'],
  [/\bminus|weniger|abzüglich\b/g, 'minus'],
  [/\bmit\b/g, 'with'],
  [/\b(?:von|vom)\b/g, 'of'],
  [/\b(?:eine[rsnm]?|ein)(?= \p{L})(?! (?:on|below|from|otherwise)\b)/gu, 'a'],
  [/\b(?:der|die|das|des|dem|den)\b/g, 'the'],
];

/** Other ways to say the same in English. */
const ENGLISH: readonly (readonly [RegExp, string])[] = [
  [/\b(?:takes|fills up|is|are|should be|stands?|square|of (?:pictures|photos|images))\b/g, ''],
  [/\bfixed (?:width )?(?:of )?(?=\d)/g, 'always '],
  [/,? everywhere$/g, ''],
  [/\bof the text$/g, 'of the text column'],
  [
    /\b(?:when|where|if|as soon as)(?: the (?:window|screen|page) is)?(?= (?:wider|narrower|above|below|over|under))/g,
    '',
  ],
  [/\bdown to (?=\d)/g, 'from '],
  [/\bthen\b/g, 'otherwise'],
  [/\b(?:full bleed|edge to edge|from edge to edge|wall to wall|full ?screen(?: width)?)\b/g, 'full bleed'],
  [
    /\b(?:thumbnails|tiles|cards|stretch(?:es|ed) over|cent(?:er|re)d|(?:left|right)[- ]aligned|beside the text)\b/g,
    '',
  ],
  [/\bbrowser(?:'s)?(?= window)/g, ''],
  [/\bbrowser(?:'s)?(?= width)/g, 'window'],
  [
    /\b(?:narrow|wide(?= column of)|small|little|large|big|simple|plain|left|right)(?= (?:text )?(?:column|sidebar|picture|thumbnail|row|grid|side))/g,
    '',
  ],
  [/\bfrom (\d[\d.]*(?: ?[a-z]+)?) to (?=\d)/g, 'between $1 and '],
  [/\b(?:stacked|one (?:below|under) the other|on top of each other)\b/g, '1 abreast'],
  [/\b(?:before that|below that|up to there)\b/g, 'otherwise'],
  [/\brows? of (\w+)/g, '$1 abreast'],
  [/\bup(?= (?:on|from|below|otherwise)|$|,)/g, 'abreast'],
  [
    /\bon (?:small|narrow) (?:screens|windows|devices)\b|\bon (?:a )?(?:phone|mobile|mobiles|smartphones?|handhelds?)\b|\bon phones\b/g,
    'on phones',
  ],
  [/\bon (?:a )?tablets?\b/g, 'on tablets'],
  [/\bon (?:a )?(?:desktops?|laptops?|computers?|(?:large|wide) (?:screens|windows))\b/g, 'on desktop'],
  [
    /\b(?:full ?width|(?:across )?the (?:whole|full|entire) (?:window|screen|page|width)(?:(?: window)? width)?|as wide as the (?:window|screen|page|viewport))\b/g,
    'full width',
  ],
  [/\b(?:viewport|screen|browser window)\b/g, 'window'],
  [/\b(?:window|page)(?:'s)? width\b/g, 'window'],
  [
    /\b(?:the )?(?:text|reading|article) (?:column|width)\b|\bas wide as the text(?: column)?\b/g,
    'text column',
  ],
  [
    /\b(?:up to|no (?:wider|more) than|never (?:wider|more) than|not (?:wider|more) than|max(?:imum|imal)?\.?(?: width)?(?: of)?|at the most)\b/g,
    'at most',
  ],
  [
    /\b(?:min(?:imum)?\.?(?: width)?(?: of)?|no (?:narrower|less) than|not (?:narrower|less) than)\b/g,
    'at least',
  ],
  [
    /\b(?:next to each other|beside each other|side by side|in (?:a|one) row|in line|to a row|(?:per|a) (?:row|line)|across)\b/g,
    'abreast',
  ],
  [/\b(?:gutters?|gaps|spacing|space)(?: between(?: them)?)?\b/g, 'gap'],
  [/\bapart\b|\bbetween(?: them| each)?(?= |$|,)(?! \d)/g, 'gap'],
  [
    /\b(?:on|at|to) (?:both|each|either|every) sides?\b|\b(?:side )?margins?(?: at each side)?\b|\bpadding\b/g,
    'at each side',
  ],
  [/\b(?:exactly|fixed|constantly)\b/g, 'always'],
  [/\b(?:otherwise|else|elsewhere|everywhere else)\b/g, 'otherwise'],
  [/\b(?:under|narrower than|less than|until)(?= \d)/g, 'below'],
  [/\b(?:above|over|wider than|starting (?:at|from)|beyond|as of)(?= \d)/g, 'from'],
  [/\b(?:less|without)\b/g, 'minus'],
  [/\b(?:container|content|wrapper|layout|page)\b/g, 'column'],
  [/\b(?:portrait|avatar|icon|logo|stamp)\b/g, 'thumbnail'],
  [/\b(?:side column|aside|side bar)\b/g, 'sidebar'],
];

const SHARES: readonly (readonly [RegExp, number])[] = [
  [/\b(?:two thirds|2\/3)\b/g, 2 / 3],
  [/\b(?:three quarters?|3\/4)\b/g, 3 / 4],
  [/\b(?:(?:a|one) third|third|1\/3)\b/g, 1 / 3],
  [/\b(?:(?:a|one) quarter|quarter|1\/4)\b/g, 1 / 4],
  [/\b(?:(?:a|one) fifth|1\/5)\b/g, 1 / 5],
  [/\b(?:(?:a|one) sixth|1\/6)\b/g, 1 / 6],
  [/\b(?:(?:a|one) half|half(?: a)?|1\/2)\b|½/g, 1 / 2],
];

export interface Plain {
  /** Lengths are "@" and px, parts "#" and a number up to 1, counts digits. */
  text: string;
  /** What was taken for granted, as sentences. */
  notes: string[];
  /** "wide" was said. */
  isWide: boolean;
}

const round = (value: number): number => Math.round(value * 10_000) / 10_000;
const all = (text: string, ways: readonly (readonly [RegExp, string])[]): string =>
  ways.reduce((said, [way, word]) => said.replace(way, word), text);

/** What every way of writing has in common. */
function tidied(text: string): string {
  return (
    text
      .toLowerCase()
      .replace(/[×✕]/g, 'x')
      .replace(/[–—−]/g, '-')
      .replace(/[‘’]/g, "'")
      .replace(/[.;:!\s]+$/, '')
      // Thousands are written 1 200, 1,200 or 1'200.
      .replace(/\b(\d{1,2})[ ,'](\d{3})(?=\s*(?:px\b|pixel|x\b|$|,|-))/g, '$1$2')
      .replace(/(\d),(\d)(?=\d*\s*(?:px|rem|em|ch|%)\b)/g, '$1.$2')
      .replace(/(\d)\s*x\s*(\d)/g, '$1 x $2')
      .replace(/\s*\(([^()]*)\)/g, ' $1')
      .replace(/(\p{L})-(?=\p{L})/gu, '$1 ')
      .replace(/(\d)-(?=col|spalt)/g, '$1 ')
      .replace(/\s+/g, ' ')
      .trim()
  );
}

/** Whether a number without a unit stands where there is a count: of pictures in a row, or in a following part of them. */
const COUNT = /^ (?:abreast|columns?\b|grid|on (?:phones|tablets|desktop)|below|from|otherwise|$)/;

function withLengths(text: string, notes: Set<string>): string {
  const lengths = text
    .replace(
      /(\d+(?:\.\d+)?) ?(px|pixels?|rem|em|ch|characters|chars)\b/g,
      (_, figure: string, unit: string) => {
        const isFigure = unit.startsWith('ch');
        if (unit === 'em' || unit === 'rem') notes.add(`1 ${unit} is taken as ${FONT} px.`);
        if (isFigure) notes.add(`1 ch is taken as ${FONT * FIGURE} px, half of a font of ${FONT} px.`);
        const px = unit.startsWith('p') ? 1 : isFigure ? FONT * FIGURE : FONT;
        return `@${round(Number(figure) * px)}`;
      },
    )
    .replace(/(\d+(?:\.\d+)?) ?(?:%|per ?cent)/g, (whole, figure: string) => {
      const part = Number(figure) / 100;
      return part > 0 && part <= 1 ? `#${Number(part.toFixed(8))}` : whole;
    });
  return lengths.replace(
    /(?<![@#\d./])(\d+(?:\.\d+)?)(?![\d.])( [^@#]*)?/g,
    (whole, figure: string, rest = '') => {
      const isCount = Number(figure) <= 12 && COUNT.test(String(rest) || ' ');
      if (isCount || /^ x /.test(String(rest))) return whole;
      if (Number(figure) <= 12) return whole;
      notes.add('A number without a unit is taken as px.');
      return `@${figure}${String(rest)}`;
    },
  );
}

/** A text in one way to write it. */
export function plainWidth(text: string): Plain {
  const notes = new Set<string>();
  const english = all(all(tidied(text), GERMAN), ENGLISH);
  const shared = SHARES.reduce(
    (said, [way, part]) => said.replace(way, `#${Number(part.toFixed(8))}`),
    english,
  );
  const counted = NUMBERS.reduce(
    (said, words, n) =>
      said.replace(new RegExp(`(?<![\\p{L}#])(?:${words.join('|')})(?!\\p{L})`, 'gu'), `${n + 1}`),
    shared,
  );
  const measured = withLengths(counted, notes)
    .replace(/\b(?:a|an|the|its|their|wide|pictures?|photos?|images?|only|just)\b/g, '')
    .replace(/@([\d.]+)px/g, '@$1')
    .replace(/\s+/g, ' ')
    .replace(/ ,/g, ',')
    .replace(/(@[\d.]+) text column/g, '$1 column')
    .replace(/^,|,$/g, '')
    .trim();
  return { text: measured, notes: [...notes], isWide: /\bwide\b/.test(counted) };
}
