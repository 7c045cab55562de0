// Entities of markup as the signs that they stand for: those that people meet in texts.

const NAMED: Readonly<Record<string, string>> = {
  ...{ amp: '&', lt: '<', gt: '>', quot: '"', apos: '’', nbsp: ' ', shy: '', hellip: '…', euro: '€' },
  ...{ ndash: '–', mdash: '—', lsquo: '‘', rsquo: '’', ldquo: '“', rdquo: '”', bdquo: '„', laquo: '«' },
  ...{ raquo: '»', times: '×', deg: '°', middot: '·', bull: '•', copy: '©', reg: '®', trade: '™' },
  ...{ auml: 'ä', ouml: 'ö', uuml: 'ü', Auml: 'Ä', Ouml: 'Ö', Uuml: 'Ü', szlig: 'ß', eacute: 'é' },
  ...{ egrave: 'è', agrave: 'à', ccedil: 'ç', ntilde: 'ñ', aring: 'å', aelig: 'æ', oslash: 'ø' },
};
const ENTITY = /&(?:([a-z][a-z0-9]{1,30})|#(\d{1,7})|#x([\da-f]{1,6}));/gi;

function letterOf(code: number): string {
  // Controls and halves of surrogate pairs are no letters of a text.
  const isLetter = code >= 32 && code <= 0x10ffff && (code < 0xd800 || code > 0xdfff);
  if (!isLetter) return ' ';
  return code === 39 ? '’' : String.fromCodePoint(code);
}

/** The text with its entities as signs; one that isn't known stays as it is. */
export const decoded = (text: string): string =>
  text.replace(ENTITY, (whole, name?: string, decimal?: string, hex?: string) =>
    name === undefined
      ? letterOf(decimal === undefined ? Number.parseInt(hex!, 16) : Number(decimal))
      : (NAMED[name] ?? NAMED[name.toLowerCase()] ?? whole),
  );
