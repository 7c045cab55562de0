// How a photo stands, as little as a list of thousands must know of it: what its decisions say once, and what follows
// from the files that are there by now.
import type {
  Filter,
  Photo,
  PhotoRow,
  PlanContext,
  SentBytes,
  SetPlaces,
  Slot,
  SlotId,
  Stop,
  StoredFacts,
} from '../contract/index.ts';
import type { Screen } from '../source/choice.ts';
import { isModern, leastOf } from '../weight/served.ts';
import { shownName, speakingSlug } from '../naming/naming.ts';
import { mayImprove, planPhoto, rowVariant } from '../plan/plan.ts';
import { slotsOf, standsIn } from '../plan/set-places.ts';
import { PHONE, RETINA_LAPTOP } from '../slots/devices.ts';
import { doubtOf } from '../saliency/doubt.ts';
import { shapesOf, slotsIn } from '../slots/slots.ts';
import { checkPhoto } from '../words/checks.ts';
import { isKept } from '../words/kept.ts';
import { READ_BY_CHECKS, sounded } from '../words/text/text.ts';
import { concernsOf, isMild, matchesFilter, SEAL_PARTS, type Concern } from './readiness.ts';
import { variantSentTo } from './weight.ts';

export const FILTERS: readonly Filter[] = [
  ...(['all', 'words', 'crop', 'budget', 'small', 'unplaced', 'ready'] as const),
];

/** A file that a screen may be sent in one place, with all files of its shape and format. */
interface Alternative {
  key: string;
  all: string[];
}

/** What a screen is sent in one place: of several modern formats the one with fewer bytes; the place's budget in bytes. */
interface Sent {
  slot: SlotId;
  of: Alternative[];
  budget: number;
}

/** What follows from a photo's decisions alone. */
export interface Standing {
  id: number;
  position: string;
  binned: boolean;
  /** Hash of its original. */
  hash: string;
  name: string;
  fileName: string;
  slug: string;
  /** What is heard of it; "" where nothing is, or it is decorative: such photos repeat nobody. */
  heard: string;
  decorative: boolean;
  /** Something that a check finds in its words is kept on purpose. */
  kept: boolean;
  /** Places it stands in, also where the page does not show them. */
  slots: SlotId[];
  /** It has placements of its own. */
  placed: boolean;
  camera: number;
  /** Keys of the files it wants, each once. */
  keys: string[];
  /** Those that a thorough pass may make smaller. */
  improvable: string[];
  phone: Sent[];
  laptop: Sent[];
  /** Filters and stops that its decisions put it under, whatever its files are. */
  filters: Filter[];
  open: Stop[];
  /** Part of its subject that a guessed crop cuts off, 0 to 1; 0 where nothing is in doubt. */
  doubt: number;
}

/** Files of no weight: what still concerns a photo that has them all concerns its decisions. */
const WEIGHTLESS: StoredFacts = { bytes: 0, contentHash: '', quality: null, difference: null };

const openAt = (concerns: readonly Concern[]): Stop[] =>
  SEAL_PARTS.filter((stop) => concerns.some((c) => c.stop === stop && !isMild(c)));

/** What a screen may be sent of a row in a place. */
function sentIn(row: PhotoRow, slot: Slot, screen: Screen): Sent[] {
  const first = variantSentTo(row, slot, screen);
  if (!first) return [];
  const own = row.variants.filter((v) => v.slot === slot.id && v.shape === first.shape);
  const formats = [...new Set(own.map(({ format }) => format))];
  // Every format has the same widths: what is chosen among them is the same.
  const modern = formats.filter((format) => format === first.format || isModern(format));
  const of = modern.flatMap((format): Alternative[] => {
    const all = own.filter((v) => v.format === format);
    const chosen = all.find(({ width }) => width === first.width);
    return chosen ? [{ key: chosen.key, all: all.map(({ key }) => key) }] : [];
  });
  return [{ slot: slot.id, of, budget: slot.budget }];
}

/** A note counts as long as there is something that it keeps. */
function keepsAny(photo: Photo, language = 'en'): boolean {
  const { words } = photo;
  if (Object.keys(words.kept).length === 0) return false;
  return checkPhoto(photo, words, { language }).some((finding) => isKept(words, finding));
}

/** @param setPlaces where photos of the set are seen */
export function standingOf(
  photo: Photo,
  setPlaces: SetPlaces,
  context: Pick<PlanContext, 'slots' | 'devices' | 'policy'> & Partial<Pick<PlanContext, 'languages'>>,
): Standing {
  const planned = planPhoto(photo, setPlaces, context);
  const row = { ...photo, variants: planned.map((one) => rowVariant(one, WEIGHTLESS, null)) };
  const slots = slotsIn(context, slotsOf(photo, setPlaces));
  const standing = slotsIn(context, standsIn(photo, setPlaces));
  const concerns = concernsOf(row, setPlaces, context, []);
  const decorative = photo.words.role === 'decorative';
  return {
    id: photo.id,
    position: photo.position,
    binned: photo.binned,
    hash: photo.original.hash,
    name: shownName(photo.words, photo.fileName),
    fileName: photo.fileName,
    slug: speakingSlug(photo.words, photo.fileName),
    heard: decorative ? '' : sounded(photo.words.alt.slice(0, READ_BY_CHECKS)),
    decorative,
    kept: keepsAny(photo, context.languages?.[0]),
    slots: standing.map(({ id }) => id),
    placed: photo.placements !== null,
    camera: photo.original.bytes,
    keys: [...new Set(planned.map(({ key }) => key))],
    improvable: [...new Set(planned.filter(mayImprove).map(({ key }) => key))],
    phone: slots.flatMap((slot) => sentIn(row, slot, PHONE)),
    laptop: slots.flatMap((slot) => sentIn(row, slot, RETINA_LAPTOP)),
    filters: FILTERS.filter((filter) => matchesFilter(filter, concerns)),
    open: openAt(concerns),
    doubt:
      doubtOf(
        photo,
        shapesOf(
          context,
          slots.map(({ id }) => id),
        ),
      )?.part ?? 0,
  };
}

/** What is known of files. */
export interface FileState {
  /** Bytes of a file, that making it failed, or neither yet. */
  of: (key: string) => number | 'failed' | null;
  /** Whether its thorough pass is over. */
  improved: (key: string) => boolean;
  /** Bytes that it has become smaller by, as far as the file of before is still known. */
  saved: (key: string) => number;
}

/** How a photo stands with the files that are there. */
export interface Present {
  filters: ReadonlySet<Filter>;
  open: ReadonlySet<Stop>;
  made: number;
  failed: number;
  /** Files whose thorough pass is over. */
  improved: number;
  /** Bytes that they have become smaller by. */
  saved: number;
  /** Bytes that a phone and a retina laptop are sent, and whether that is all. */
  phone: SentBytes;
  /** Bytes that a phone is sent in each of the standing's `phone`, as far as they are known. */
  phoneIn: readonly (number | null)[];
  laptop: SentBytes;
}

/** Bytes of what is sent in one place. */
function bytesOf({ of }: Sent, state: FileState): number | 'failed' | null {
  const sums = of.map(({ all }) =>
    all.reduce<number | null>((sum, key) => {
      const bytes = state.of(key);
      return sum === null || typeof bytes !== 'number' ? null : sum + bytes;
    }, 0),
  );
  const chosen = of[leastOf(sums)];
  return chosen ? state.of(chosen.key) : null;
}

const eachOf = (sent: readonly Sent[], state: FileState): (number | null)[] =>
  sent.map((one) => {
    const bytes = bytesOf(one, state);
    return typeof bytes === 'number' ? bytes : null;
  });

const sumOf = (bytes: readonly (number | null)[]): SentBytes => ({
  sent: bytes.reduce<number>((sum, one) => sum + (one ?? 0), 0),
  complete: bytes.every((one) => one !== null),
});

/** @param repeats another photo of the set has the same alt text */
export function presentOf(standing: Standing, state: FileState, repeats: boolean): Present {
  const states = standing.keys.map(state.of);
  const made = states.filter((one) => typeof one === 'number').length;
  const failed = states.filter((one) => one === 'failed').length;
  const phoneIn = eachOf(standing.phone, state);
  const over = standing.phone.some(({ budget }, n) => (phoneIn[n] ?? 0) > budget);
  const filters = new Set(standing.filters);
  const open = new Set(standing.open);
  if (over) filters.add('budget');
  if (over || made < states.length) {
    open.add('weigh');
    filters.delete('ready');
  }
  if (repeats && standing.heard !== '') {
    open.add('describe');
    filters.add('words');
    filters.delete('ready');
  }
  return {
    filters,
    open,
    made,
    failed,
    improved: standing.improvable.filter(state.improved).length,
    saved: standing.improvable.reduce((sum, key) => sum + state.saved(key), 0),
    phone: sumOf(phoneIn),
    phoneIn,
    laptop: sumOf(eachOf(standing.laptop, state)),
  };
}
