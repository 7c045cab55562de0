// Does the time of a function grow faster than the length of what it reads? Told by ratios within one run.

/** Text of about a length, from a pattern that is known to make careless expressions go back and forth. */
export const HOSTILE: Record<string, (length: number) => string> = {
  'a camera name and words': (n) => `IMG_0412 ${'wood kiln at dusk '.repeat(n)}.`.slice(0, n),
  'one letter': (n) => 'a'.repeat(n),
  'letters and digits': (n) => 'a1'.repeat(n / 2),
  words: (n) => 'bowl '.repeat(n / 5),
  'the same word': (n) => 'blue blue '.repeat(n / 10),
  spaces: (n) => `a${' '.repeat(n)}b`,
  'line breaks': (n) => `a${'\n '.repeat(n / 2)}b`,
  hyphens: (n) => 'a-'.repeat(n / 2),
  underscores: (n) => `img_0412${'_a'.repeat(n / 2)}!`,
  dots: (n) => 'a.'.repeat(n / 2),
  commas: (n) => ', '.repeat(n / 2),
  marks: (n) => '!?;:–—()'.repeat(n / 8),
  openings: (n) => 'image of a photo of the '.repeat(n / 24),
  articles: (n) => 'a the an '.repeat(n / 9),
  digits: (n) => '20260501'.repeat(n / 8),
  dates: (n) => '2026-05-01 at '.repeat(n / 14),
  times: (n) => '11.04.22 '.repeat(n / 9),
  brackets: (n) => '('.repeat(n),
  'closed brackets': (n) => `${'('.repeat(n / 2)}${')'.repeat(n / 2)}`,
  sums: (n) => `calc(${'1px + '.repeat(n / 6)}1px)`,
  'nested minima': (n) => `${'min(1px,'.repeat(n / 9)}1px${')'.repeat(n / 9)}`,
  conditions: (n) => `${'(min-width: 1px) 1px, '.repeat(n / 22)}1px`,
  nots: (n) => 'not '.repeat(n / 4),
  candidates: (n) => 'a 1w, '.repeat(n / 6),
  'slashes and stars': (n) => '/*'.repeat(n / 2),
  comments: (n) => `${'<!---->'.repeat(n / 7)}<svgx`,
  'open comments': (n) => '<!--'.repeat(n / 4),
  instructions: (n) => `${'<?xml ?> '.repeat(n / 9)}<`,
  doctypes: (n) => '<!DOCTYPE [ '.repeat(n / 12),
  tags: (n) => '<g>'.repeat(n / 3),
  ampersands: (n) => '&amp'.repeat(n / 4),
  quotes: (n) => '"'.repeat(n),
  formulas: (n) => "'=".repeat(n / 2),
  capitals: (n) => 'BOWL '.repeat(n / 5),
  'marks on letters': (n) => 'u\u0308'.repeat(n / 2),
  surrogates: (n) => '😀'.repeat(n / 2),
  urls: (n) => 'url( '.repeat(n / 5),
  imports: (n) => '@import ('.repeat(n / 9),
  media: (n) => '@media '.repeat(n / 7),
  'media of digits': (n) => `@media (${'1'.repeat(n)}`,
  escapes: (n) => '\\61'.repeat(n / 3),
  'open blocks': (n) => 'a{'.repeat(n / 2),
};

/** Milliseconds of processor time of one call, the least of some tries: other work on the machine only adds. */
function costOf(body: () => unknown, tries: number): number {
  let least = Infinity;
  for (let i = 0; i < tries; i++) {
    const before = process.cpuUsage();
    try {
      body();
    } catch {
      // Refusing is as good an answer as any; here only its time counts.
    }
    const { user, system } = process.cpuUsage(before);
    least = Math.min(least, (user + system) / 1000);
  }
  return least;
}

/** Ratio for sixteen times the length from which growth is faster than length: squares would be 256. */
export const FASTER_THAN_LENGTH = 80;

export interface Growth {
  /** Time at the longest text ÷ time at a sixteenth of it; 16 is linear. */
  ratio: number;
  /** Length at which a single call took more than a second, or null. */
  stuckAt: number | null;
}

const LONGEST = 24_000;
/** Times below this, in ms, are noise: they are taken for this. */
const NOISE = 1.5;

/** The next length that is tried: where time doubles with each character, no step may cost more than a few seconds. */
const next = (length: number): number => (length < 64 ? length + 2 : Math.ceil(length * 1.3));

/**
 * Calls with ever longer texts. The first steps are small, so that time that doubles with every character is
 * noticed before it becomes for ever.
 */
export function growthOf(read: (text: string) => unknown, hostile: (length: number) => string): Growth {
  for (let length = 16; length < LONGEST / 16; length = next(length)) {
    if (costOf(() => read(hostile(length)), 1) > 1000) return { ratio: Infinity, stuckAt: length };
  }
  const small = Math.max(
    NOISE,
    costOf(() => read(hostile(LONGEST / 16)), 3),
  );
  const large = costOf(() => read(hostile(LONGEST)), 1);
  if (large / small <= FASTER_THAN_LENGTH) return { ratio: large / small, stuckAt: null };
  // Compiling and tidying memory are time of the process as well: what grows too fast does so each time.
  const again = costOf(() => read(hostile(LONGEST)), 6);
  return { ratio: Math.min(large, again) / small, stuckAt: null };
}
