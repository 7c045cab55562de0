// What other rules or places would make of a set, before they hold: files are counted from the plan, bytes measured on some
// pictures that would be others and carried over to the rest.
import {
  isModern,
  PHONE,
  planPhoto,
  planShape,
  RETINA_LAPTOP,
  slotsIn,
  slotsOf,
  variantSentTo,
  variantsOf,
  type Photo,
  type PlannedVariant,
  type PolicyForecast,
  type RowVariant,
  type Site,
  type Slot,
} from '@dusky-otter/core';
import type { Looker } from '../look/looker.ts';
import { weighed } from '../look/looked-at.ts';
import { rowOf, type FileStates } from '../sets/sent.ts';
import type { Vault } from '../vault/vault.ts';

/** Photos that are planned; of a larger set so many, evenly. */
const MOST_PLANNED = 200;
/** Pictures that are made to see what they weigh, for each screen. */
const MOST_TRIED = 5;

export interface Made {
  looker: Looker;
  vault: Vault;
  states: FileStates;
}

/** So many of a list, evenly. */
export const evenly = <T>(list: readonly T[], most: number): T[] =>
  list.length <= most
    ? [...list]
    : Array.from({ length: most }, (_, n) => list[Math.floor(((n + 0.5) * list.length) / most)]!);

/** A picture that a screen would be sent another file of. */
interface Changed {
  photo: Photo;
  now: number;
  /** Ways to have it: of several modern formats the one that weighs least is sent. */
  then: PlannedVariant[];
}

/** The files of which one would be sent: that of the plan, and of the other modern formats those as wide. */
function waysOf(
  photo: Photo,
  slot: Slot,
  { shape, width, format }: RowVariant,
  site: Site,
): PlannedVariant[] {
  return planShape(photo, slot, shape, site).filter(
    (one) => one.width === width && (one.format === format || (isModern(one.format) && isModern(format))),
  );
}

/**
 * What a set would be with other rules, or other places.
 * @param photos of the set, without those in the bin
 * @param after the site as it would be
 * @param seen whether what stands in a place is loaded with the page, and not when somebody asks for it
 * @throws the signal's reason when nobody waits for it any more; RenderError
 */
export async function forecastOf(
  photos: readonly Photo[],
  setSlots: readonly string[],
  site: Site,
  after: Site,
  made: Made,
  signal: AbortSignal,
  seen: (slot: Slot) => boolean = () => true,
): Promise<PolicyForecast> {
  const { states } = made;
  const planned = evenly(photos, MOST_PLANNED);
  const scale = planned.length === 0 ? 1 : photos.length / planned.length;
  const files = { now: 0, then: 0, toMake: 0 };
  const screens = [PHONE, RETINA_LAPTOP].map((screen) => ({ screen, same: 0, changed: [] as Changed[] }));
  for (const [n, photo] of planned.entries()) {
    // Others are answered meanwhile.
    if (n % 10 === 0) await new Promise((done) => setImmediate(done));
    const row = rowOf(photo, setSlots, site, states);
    const keys = new Set(planPhoto(photo, setSlots, after).map(({ key }) => key));
    files.now += new Set(row.variants.map(({ key }) => key)).size;
    files.then += keys.size;
    files.toMake += [...keys].filter((key) => !states.get(key)).length;
    const then = { ...photo, variants: variantsOf(photo, setSlots, after, states) };
    for (const slot of slotsIn(site, slotsOf(photo, setSlots)).filter(seen)) {
      const other = after.slots.find(({ id }) => id === slot.id);
      if (!other) continue;
      for (const one of screens) {
        const sent = variantSentTo(row, slot, one.screen);
        const next = variantSentTo(then, other, one.screen);
        if (!sent || sent.bytes === null || !next) continue;
        const moves = photo.original.frames > 1 && !photo.quality[slot.id]?.still;
        const ways = waysOf(photo, other, next, after);
        if (moves || next.format === 'svg' || ways.every(({ key }) => key === sent.key))
          one.same += sent.bytes;
        else one.changed.push({ photo, now: sent.bytes, then: ways });
      }
    }
  }
  let tried = 0;
  const weigh = async ({ photo, then }: Changed): Promise<number> => {
    const bytes: number[] = [];
    for (const one of then) {
      const stored = states.get(one.key);
      if (stored) bytes.push(stored.bytes);
      else {
        const { format } = one;
        if (format === 'svg') continue;
        bytes.push(await weighed(photo, { ...one, format }, made, signal));
        tried += 1;
      }
    }
    return Math.min(...bytes);
  };
  const sent = [];
  for (const { same, changed } of screens) {
    const now = changed.reduce((sum, one) => sum + one.now, 0);
    const sample = evenly(changed, MOST_TRIED);
    let [before, then] = [0, 0];
    for (const one of sample) {
      before += one.now;
      then += await weigh(one);
    }
    const ratio = before > 0 ? then / before : 1;
    sent.push({ now: Math.round((same + now) * scale), then: Math.round((same + now * ratio) * scale) });
  }
  const [phone, laptop] = sent as [PolicyForecast['phone'], PolicyForecast['laptop']];
  const scaled = (count: number) => Math.round(count * scale);
  return {
    files: { now: scaled(files.now), then: scaled(files.then), toMake: scaled(files.toMake) },
    phone,
    laptop,
    tried,
    exact: photos.length <= MOST_PLANNED && screens.every(({ changed }) => changed.length <= MOST_TRIED),
  };
}
