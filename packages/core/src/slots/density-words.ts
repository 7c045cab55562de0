// How sharp a crop is, in plain words: on which screens, and by how many pixels it falls short.
import type { DeviceClass, Size, Slot, SlotShape } from '../contract/index.ts';
import { demandsOf, type Demand } from './candidates.ts';

/** Screens as people call them, by viewport width in CSS px. */
const KINDS = [
  { below: 600, name: 'phones' },
  { below: 1100, name: 'tablets' },
  { below: 1700, name: 'laptops' },
  { below: Infinity, name: 'wide screens' },
] as const;
const DENSE = 1.5;

const kindOf = ({ device, density }: Demand): string => {
  const { name } = KINDS.find(({ below }) => device.viewport < below)!;
  // Phones are all dense: that goes without saying.
  return density >= DENSE && name !== 'phones' ? `dense ${name}` : name;
};

/** "a", "a and b", "a, b and c". */
export const listedNames = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

const upper = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/**
 * Says on which of a site's screens a crop is sharp, soft (fewer pixels than the screen has, but no fewer than it shows in
 * CSS px) or blurred (fewer than that): "Sharp on phones, soft on dense laptops: 210 px short".
 */
export function densityInWords(
  slot: Slot,
  part: SlotShape,
  crop: Size,
  devices: readonly DeviceClass[],
): { sentence: string; missing: number } {
  const demands = demandsOf(slot, part, crop, devices);
  const verdicts = new Map<string, 'sharp' | 'soft' | 'blurred'>();
  const order = ['sharp', 'soft', 'blurred'] as const;
  for (const demand of demands) {
    const short = demand.pixels > crop.width;
    const verdict = !short ? 'sharp' : crop.width < Math.floor(demand.display) ? 'blurred' : 'soft';
    const kind = kindOf(demand);
    // Of screens of one kind the worst counts.
    const before = verdicts.get(kind);
    if (!before || order.indexOf(verdict) > order.indexOf(before)) verdicts.set(kind, verdict);
  }
  const named = (verdict: string) => [...verdicts].filter(([, one]) => one === verdict).map(([kind]) => kind);
  const missing = Math.max(0, ...demands.map(({ pixels }) => pixels - crop.width));
  if (missing === 0) return { sentence: `Sharp on every screen: ${crop.width} px`, missing };
  const parts = order.flatMap((verdict) => {
    const kinds = named(verdict);
    return kinds.length > 0 ? [`${verdict} on ${listedNames(kinds)}`] : [];
  });
  return { sentence: `${upper(parts.join(', '))}: ${missing} px short`, missing };
}
