// What other rules or places would make of a set, before they hold: files are counted from the plan, bytes measured on some
// pictures that would be others and carried over to the rest.
import type {
  BitmapFormat,
  Photo,
  PlannedVariant,
  PolicyForecast,
  RowVariant,
  SetPlaces,
  Site,
  Slot,
} from '@dusky-otter/core/contract';
import { planPhoto, planShape, slotsOf, variantsOf } from '@dusky-otter/core/plan';
import { variantSentTo } from '@dusky-otter/core/readiness';
import { PHONE, RETINA_LAPTOP, slotsIn } from '@dusky-otter/core/slots';
import { isModern, leastOf } from '@dusky-otter/core/weight';
import type { PreviewRenderer } from '../look/preview-renderer.ts';
import { weighed } from '../look/looked-at.ts';
import { rowOf, type FileStates } from '../answers/sent.ts';
import type { Vault } from '../vault/vault.ts';
import { inPassing } from '../turns.ts';

/** Photos that are planned; of a larger set so many, evenly. */
export const MOST_PLANNED = 200;
/** Pictures that are made to see what they weigh, for each screen. */
const MOST_TRIED = 5;

export interface Made {
  previews: PreviewRenderer;
  vault: Vault;
  states: FileStates;
}

/** So many of a list, evenly. */
export const evenly = <T>(list: readonly T[], most: number): T[] =>
  list.length <= most
    ? [...list]
    : Array.from({ length: most }, (_, n) => list[Math.floor(((n + 0.5) * list.length) / most)]!);

type Bitmap = PlannedVariant & { format: BitmapFormat };
const isBitmap = (one: PlannedVariant): one is Bitmap => one.format !== 'svg';

/** A picture that a screen would be sent another file of. */
interface Changed {
  photo: Photo;
  now: number;
  /** Width that it would be sent in. */
  width: number;
  /** Ways to have it, one for each format, at all widths: of several formats the one that weighs least is sent. */
  then: Bitmap[][];
}

/** Which of two formats weighs less over all widths is told by one, unless the lighter has more than this of the other. */
const CLOSE = 0.8;

/** The formats of which one would be sent, each with its files: that of the plan, and other modern ones beside one. */
function waysOf(photo: Photo, slot: Slot, { shape, format }: RowVariant, site: Site): Bitmap[][] {
  const planned = planShape(photo, slot, shape, site).filter(isBitmap);
  const formats = new Set(planned.map((one) => one.format));
  return [...formats]
    .filter((one) => one === format || (isModern(one) && isModern(format)))
    .map((one) => planned.filter((variant) => variant.format === one));
}

/** What pictures weigh: as they are stored, else as they are made for it. */
class Scales {
  /** Keys of files that were made; the previews remember what they weigh. */
  private readonly made = new Set<string>();

  constructor(
    private readonly from: Made,
    private readonly signal: AbortSignal,
  ) {}

  /** Files that were made to be weighed. */
  get tried(): number {
    return this.made.size;
  }

  /** Bytes that the screen would be sent. */
  async weigh({ photo, width, then }: Changed): Promise<number> {
    const ways: { bytes: number; files: Bitmap[] }[] = [];
    for (const files of then) {
      const one = files.find((file) => file.width === width);
      if (one) ways.push({ bytes: await this.bytesOf(photo, one), files });
    }
    const [lightest, second] = ways.sort((a, b) => a.bytes - b.bytes);
    if (!second || lightest!.bytes < CLOSE * second.bytes) return lightest!.bytes;
    const sums: number[] = [];
    for (const { files } of ways) {
      let sum = 0;
      for (const file of files) sum += await this.bytesOf(photo, file);
      sums.push(sum);
    }
    return ways[leastOf(sums)]!.bytes;
  }

  private async bytesOf(photo: Photo, file: Bitmap): Promise<number> {
    const stored = this.from.states.get(file.key);
    if (stored) return stored.bytes;
    const bytes = await weighed(photo, file, this.from, this.signal);
    this.made.add(file.key);
    return bytes;
  }
}

/**
 * What a set would be with other rules, or other places.
 * @param planned photos of the set, without those in the bin: all, or some that stand evenly among them
 * @param total how many there are
 * @param after the site as it would be
 * @param seen whether what stands in a place is loaded with the page, and not when somebody asks for it
 * @throws the signal's reason when nobody waits for it any more; RenderError
 */
export async function forecastOf(
  planned: readonly Photo[],
  total: number,
  setPlaces: SetPlaces,
  site: Site,
  after: Site,
  made: Made,
  signal: AbortSignal,
  seen: (slot: Slot) => boolean = () => true,
): Promise<PolicyForecast> {
  const { states } = made;
  const scale = planned.length === 0 ? 1 : total / planned.length;
  const files = { now: 0, then: 0, toMake: 0 };
  const screens = [PHONE, RETINA_LAPTOP].map((screen) => ({ screen, same: 0, changed: [] as Changed[] }));
  for await (const photo of inPassing(planned)) {
    const row = rowOf(photo, setPlaces, site, states);
    const keys = new Set(planPhoto(photo, setPlaces, after).map(({ key }) => key));
    files.now += new Set(row.variants.map(({ key }) => key)).size;
    files.then += keys.size;
    files.toMake += [...keys].filter((key) => !states.get(key)).length;
    const then = { ...photo, variants: variantsOf(photo, setPlaces, after, states) };
    for (const slot of slotsIn(site, slotsOf(photo, setPlaces)).filter(seen)) {
      const other = after.slots.find(({ id }) => id === slot.id);
      if (!other) continue;
      for (const one of screens) {
        const sent = variantSentTo(row, slot, one.screen);
        const next = variantSentTo(then, other, one.screen);
        if (!sent || sent.bytes === null || !next) continue;
        const moves = photo.original.frames > 1 && !photo.quality[slot.id]?.still;
        const { width } = next;
        const ways = waysOf(photo, other, next, after);
        const stays = ways.flat().every((way) => way.width !== width || way.key === sent.key);
        if (moves || next.format === 'svg' || stays) one.same += sent.bytes;
        else one.changed.push({ photo, now: sent.bytes, width, then: ways });
      }
    }
  }
  const scales = new Scales(made, signal);
  const sent = [];
  for (const { same, changed } of screens) {
    const now = changed.reduce((sum, one) => sum + one.now, 0);
    const sample = evenly(changed, MOST_TRIED);
    let [before, then] = [0, 0];
    for (const one of sample) {
      before += one.now;
      then += await scales.weigh(one);
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
    tried: scales.tried,
    exact: total === planned.length && screens.every(({ changed }) => changed.length <= MOST_TRIED),
  };
}
