// The machine-readable part of a hand-over: manifest.json and words.csv.
import { writeCsv } from '../csv/csv.ts';
import type {
  Language,
  PhotoRow,
  PlanContext,
  RowVariant,
  SetPlaces,
  Slot,
  Words,
} from '../contract/index.ts';
import { isTurned } from '../geometry/frame.ts';
import { cropIn, placementIn } from '../plan/plan.ts';
import { slotsOf } from '../plan/set-places.ts';
import { SPOKEN } from '../words/translated.ts';
import { concernsOf, handoverConcerns, sameAltsOf } from '../readiness/readiness.ts';

export interface ManifestOptions {
  site: string;
  set: string;
  context: Pick<PlanContext, 'slots' | 'devices' | 'policy'> & Partial<Pick<PlanContext, 'languages'>>;
  rows: readonly PhotoRow[];
  setPlaces: SetPlaces;
  /** Words in the site's other languages, by photo; those that nobody wrote are not there. */
  translations?: readonly { language: Language; words: ReadonlyMap<number, Words> }[];
  pathOf: (row: PhotoRow, variant: RowVariant) => string;
  /** Files as they went out, by path: with words inside they have other bytes than what is stored. */
  delivered?: ReadonlyMap<string, { bytes: number; sha256: string }>;
}

/** Plain data for manifest.json. Paths are relative to the ZIP; sizes in bytes and px. */
export function manifestOf({
  site,
  set,
  context,
  rows,
  setPlaces,
  translations = [],
  pathOf,
  delivered,
}: ManifestOptions): object {
  const same = sameAltsOf(rows);
  return {
    manifest: 'dusky-otter/hand-over',
    version: 1,
    site,
    set,
    policy: context.policy,
    photos: rows.map((row) => ({
      file: row.fileName,
      sha256: row.original.hash,
      width: row.original.width,
      height: row.original.height,
      mayBeDamaged: row.original.damage,
      focal: row.frame.focal,
      ...(isTurned(row.frame) && {
        turned: { mirrored: row.frame.mirrored, turns: row.frame.turns, angle: row.frame.angle },
      }),
      words: row.words,
      ...(translations.length > 0 && {
        translations: Object.fromEntries(
          translations.flatMap(({ language, words }) => {
            const own = words.get(row.id);
            return own ? [[language, { ...own, role: row.words.role }]] : [];
          }),
        ),
      }),
      slots: slotsOf(row, setPlaces),
      concerns: handoverConcerns(concernsOf(row, setPlaces, context, same.get(row.id) ?? [])).map(
        ({ code, severity, sentence }) => ({
          code,
          severity,
          sentence,
        }),
      ),
      variants: row.variants
        .filter((v) => v.bytes !== null)
        .map((v) => ({ v, path: pathOf(row, v) }))
        .map(({ v, path }) => ({
          path,
          slot: v.slot,
          shape: v.shape,
          crop: cropIn(row, v.slot, v.shape),
          width: v.width,
          height: v.height,
          format: v.format,
          quality: v.quality,
          difference: v.difference,
          ...(delivered?.get(path) ?? { bytes: v.bytes, sha256: v.contentHash }),
        })),
    })),
  };
}

/** Heads of texts, as they are read again. */
const HEADS = {
  alt: 'alt text',
  caption: 'caption',
  title: 'title',
  longDescription: 'long description',
} as const;

/**
 * One row a photo; see `writeCsv` for how it is read back, and `readWordsFile` for by whom.
 * @param where the places of the site and the set's own, for a column that says where each photo goes, and one for each
 *   text that some photo says otherwise in one place alone
 */
export function wordsCsv(
  rows: readonly PhotoRow[],
  where?: { slots: readonly Slot[]; setPlaces: SetPlaces },
): string {
  const head = [
    'file',
    'sha256',
    'role',
    'alt text',
    'caption',
    'title',
    'credit',
    'long description',
    'link',
    'new window',
  ];
  const lines = rows.map((row) => {
    const { fileName, original, words } = row;
    const line = [
      fileName,
      original.hash,
      words.role ?? '',
      words.alt,
      words.caption,
      words.title,
      words.credit,
      words.longDescription,
      words.link,
      words.newWindow ? 'yes' : '',
    ];
    if (!where) return line;
    const own = slotsOf(row, where.setPlaces);
    return [
      ...line,
      where.slots
        .filter(({ id }) => own.includes(id))
        .map(({ name }) => name)
        .join('; '),
    ];
  });
  if (!where) return writeCsv([head, ...lines]);
  const columns = where.slots.flatMap(({ id, name }) =>
    SPOKEN.filter((field) => rows.some((row) => placementIn(row, id).words[field])).map((field) => ({
      head: `${HEADS[field]} in ${name}`,
      of: (row: PhotoRow) => placementIn(row, id).words[field] ?? '',
    })),
  );
  return writeCsv([
    [...head, 'place', ...columns.map((column) => column.head)],
    ...lines.map((line, n) => [...line, ...columns.map(({ of }) => of(rows[n]!))]),
  ]);
}
