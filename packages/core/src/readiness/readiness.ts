// What keeps a photo from going out, stop by stop: the seal, the filters and the list before a hand-over.
import type { Filter, PhotoRow, PlanContext, SetPlaces, SlotId, Stop, Words } from '../contract/index.ts';
import { shownName } from '../naming/naming.ts';
import { cropIn } from '../plan/plan.ts';
import { slotsOf, standsIn } from '../plan/set-places.ts';
import { sharpnessIn } from '../plan/sharpness.ts';
import { shapesOf, slotsIn } from '../slots/slots.ts';
import { FORMAT_NAMES } from '../weight/format.ts';
import { bytesInWords } from '../weight/units.ts';
import type { WordCheckCode } from '../words/checks/finding.ts';
import { sameAlts, type SameAlts } from '../words/checks/repetition.ts';
import { checkPhoto } from '../words/checks.ts';
import { openFindings } from '../words/kept.ts';
import { phoneFallbacks, phoneWeights } from './weight.ts';

/** todo: not done yet; care: works, but a visitor loses by it; stop: can't go out well like this. */
export type Severity = 'todo' | 'care' | 'stop';

export interface Concern {
  stop: Stop;
  code:
    | WordCheckCode
    | 'damaged'
    | 'aside'
    | 'focal-guess'
    | 'read-again'
    | 'no-target'
    | 'not-made'
    | 'failed'
    | 'over-budget'
    | 'heavy-fallback'
    | 'too-small'
    | 'soft'
    | 'no-place';
  severity: Severity;
  sentence: string;
}

/** Worth knowing, but for the editor to judge: these keep no photo from being ready. */
export const isMild = ({ code }: Concern): boolean =>
  ['soft', 'damaged', 'aside', 'heavy-fallback'].includes(code);

/** What is to be known of the file itself. */
function fileConcerns({ original }: PhotoRow): Concern[] {
  const { damage, aside } = original;
  return [
    ...(damage === null
      ? []
      : [{ stop: 'frame', code: 'damaged', severity: 'care', sentence: damage } as const]),
    ...(aside === undefined
      ? []
      : [{ stop: 'frame', code: 'aside', severity: 'care', sentence: aside } as const]),
  ];
}

type Places = Pick<PlanContext, 'slots' | 'devices'> & Partial<Pick<PlanContext, 'languages'>>;

function frameConcerns(row: PhotoRow, slots: readonly SlotId[], places: Places): Concern[] {
  const guessed = shapesOf(places, slots).filter((shape) => shape !== 'own' && !row.frame.crops[shape]);
  if (row.frame.focal.confirmed || guessed.length === 0) return [];
  return [
    {
      stop: 'frame',
      code: 'focal-guess',
      severity: 'todo',
      sentence: 'The focal point is a guess: look at the crops and confirm it.',
    },
  ];
}

function sizeConcerns(row: PhotoRow, slots: readonly SlotId[], places: Places): Concern[] {
  return slotsIn(places, slots).flatMap((slot) => {
    return slot.shapes.flatMap((part): Concern[] => {
      const crop = cropIn(row, slot.id, part.shape);
      const sharp = sharpnessIn(row, slot, part, crop, places.devices);
      const where = part.shape === 'own' ? slot.name : `${slot.name} ${part.shape}`;
      if (sharp.verdict === 'sharp') return [];
      const small = sharp.verdict === 'too-small';
      const sentence = small
        ? `Too small for ${where}: ${crop.width} px, ${sharp.missing} px short of the ${sharp.display} px shown. Visitors see it small or blurred.`
        : `Soft on retina in ${where}: ${crop.width} px, ${sharp.missing} px short of ${sharp.retina} px.`;
      return [{ stop: 'weigh', code: sharp.verdict, severity: small ? 'stop' : 'care', sentence }];
    });
  });
}

function weighConcerns(row: PhotoRow, setPlaces: SetPlaces, places: Places): Concern[] {
  const concerns = sizeConcerns(row, slotsOf(row, setPlaces), places);
  const failure = row.variants.find((v) => v.failure !== null)?.failure;
  if (failure) concerns.push({ stop: 'weigh', code: 'failed', severity: 'stop', sentence: failure });
  const missing = row.variants.filter((v) => v.bytes === null && v.failure === null).length;
  if (missing > 0) {
    const sentence = `${missing} of ${row.variants.length} versions are still being made.`;
    concerns.push({ stop: 'weigh', code: 'not-made', severity: 'todo', sentence });
  }
  for (const weight of phoneWeights(row, setPlaces, places)) {
    if (weight.over === 0) continue;
    const sentence = `Over budget in ${weight.slot.name}: ${bytesInWords(weight.bytes ?? 0)} on a phone, ${bytesInWords(weight.over)} over.`;
    concerns.push({ stop: 'weigh', code: 'over-budget', severity: 'care', sentence });
  }
  for (const { slot, variant, plain } of phoneFallbacks(row, setPlaces, places)) {
    const sentence = `Browsers that read no ${FORMAT_NAMES[variant.format]} are sent a ${FORMAT_NAMES[plain.format]} of ${bytesInWords(plain.bytes)} in ${slot.name}${plain.format === 'png' ? ': laid on a colour, it would be a far smaller JPEG' : ''}.`;
    concerns.push({ stop: 'weigh', code: 'heavy-fallback', severity: 'care', sentence });
  }
  return concerns;
}

/** Which photos of a set, shown on one page, have the same alt text. The bin is no page. */
export const sameAltsOf = (rows: readonly PhotoRow[]): SameAlts =>
  sameAlts(
    rows
      .filter((row) => !row.binned)
      .map(({ id, words, fileName }) => ({
        id,
        name: shownName(words, fileName),
        alt: words.alt,
        decorative: words.role === 'decorative',
      })),
  );

function wordConcerns(
  row: PhotoRow,
  words: Words,
  sameAs: readonly string[],
  { languages }: Places,
): Concern[] {
  const found = checkPhoto(row, words, { sameAs, language: languages?.[0] ?? 'en' });
  return openFindings(words, found).map(({ code, severity, sentence }): Concern => ({
    stop: 'describe',
    code,
    severity,
    sentence,
  }));
}

/** What concerns words that a photo has in one place alone. */
function spotConcerns(row: PhotoRow, slots: readonly SlotId[], places: Places): Concern[] {
  return (row.placements ?? []).flatMap(({ slot, words }) => {
    if (!slots.includes(slot) || (words.alt === undefined && words.role === undefined)) return [];
    const name = places.slots.find(({ id }) => id === slot)?.name ?? slot;
    return wordConcerns(row, { ...row.words, ...words }, [], places).map((concern) => ({
      ...concern,
      sentence: `In ${name}: ${concern.sentence}`,
    }));
  });
}

/**
 * Everything that still concerns one row, in the order of the path.
 * @param sameAs names of other photos of its page with the same alt text; see `sameAltsOf`.
 */
export function concernsOf(
  row: PhotoRow,
  setPlaces: SetPlaces,
  places: Places,
  sameAs: readonly string[],
): Concern[] {
  const slots = slotsIn(places, slotsOf(row, setPlaces)).map(({ id }) => id);
  const read: Concern[] = row.toRead
    ? [
        {
          stop: 'describe',
          code: 'read-again',
          severity: 'todo',
          sentence: 'The picture was replaced: read its words again.',
        },
      ]
    : [];
  const words = wordConcerns(row, row.words, sameAs, places);
  // A list may have a link of its own for it.
  const leads = row.words.link.trim() !== '' || (row.placements ?? []).some(({ link }) => link.trim() !== '');
  if (row.words.role === 'functional' && !leads)
    words.push({
      stop: 'describe',
      code: 'no-target',
      severity: 'todo',
      sentence: 'Is there to lead somewhere, but has no address yet.',
    });
  const place: Concern[] =
    slots.length > 0
      ? []
      : [
          {
            stop: 'arrange',
            code: 'no-place',
            severity: 'todo',
            sentence:
              standsIn(row, setPlaces).length > 0
                ? 'Stands in no place that the page shows: put it in one, or its place on the page.'
                : 'Goes nowhere yet: choose a place.',
          },
        ];
  return [
    ...fileConcerns(row),
    ...frameConcerns(row, slots, places),
    ...weighConcerns(row, setPlaces, places),
    ...read,
    ...words,
    ...spotConcerns(row, slots, places),
    ...place,
  ];
}

export type PartState = 'ready' | 'todo' | 'care' | 'stop';

export const SEAL_PARTS: readonly Stop[] = ['frame', 'weigh', 'describe', 'arrange'];

/** The state of each part of the seal: the gravest concern at that stop. Soft on retina doesn't open it. */
export function sealOf(concerns: readonly Concern[]): Record<Stop, PartState> {
  const worst = (stop: Stop): PartState => {
    const own = concerns.filter((c) => c.stop === stop && !isMild(c)).map((c) => c.severity);
    return own.includes('stop')
      ? 'stop'
      : own.includes('care')
        ? 'care'
        : own.includes('todo')
          ? 'todo'
          : 'ready';
  };
  return {
    frame: worst('frame'),
    weigh: worst('weigh'),
    describe: worst('describe'),
    arrange: worst('arrange'),
  };
}

/** Whether a row with these concerns belongs under a filter of the worktable. */
export function matchesFilter(filter: Filter, concerns: readonly Concern[]): boolean {
  const has = (...codes: Concern['code'][]) => concerns.some((c) => codes.includes(c.code));
  switch (filter) {
    case 'all':
      return true;
    case 'words':
      return concerns.some((c) => c.stop === 'describe');
    case 'crop':
      return has('focal-guess');
    case 'budget':
      return has('over-budget');
    case 'small':
      return has('too-small');
    case 'unplaced':
      return has('no-place');
    case 'ready':
      return concerns.every(isMild);
  }
}

/** Of a row's concerns those that an editor is told before a hand-over: words missing, photos too small, files not made. */
export const handoverConcerns = (concerns: readonly Concern[]): Concern[] =>
  concerns.filter((c) => !['focal-guess', 'soft', 'over-budget', 'heavy-fallback', 'aside'].includes(c.code));
