// The demo's pages: sets with arrangements, as the demo's data names them by files and by titles, made into commands.
import { slotsOfArrangement, wholeOptions } from '@dusky-otter/core/arrange';
import type { ArrangementOptions, Placement, SetPage, Words } from '@dusky-otter/core/contract';
import { placementsFor, type Command } from '@dusky-otter/core/edits';
import { readWidth } from '@dusky-otter/core/slots';

export interface DemoPhoto {
  file: string;
  /** Confirmed focal point; where it is missing the guess stays a guess. */
  focal?: [number, number];
  words?: Partial<Words>;
}

interface DemoArrangement {
  shortName: string;
  title: string;
  /** As CSS. */
  container: string;
  /** Photos and sets are named by their files and names. */
  options: Record<string, unknown> & { kind: ArrangementOptions['kind'] };
  photos: string[];
  /** What differs for a photo here alone. */
  here?: Record<string, { link?: string; words?: Partial<Words> }>;
}

export interface DemoPages {
  name: string;
  photos: DemoPhoto[];
  arrangements: DemoArrangement[];
  page: Omit<SetPage, 'template'>;
}

/** Ids by what the demo's data calls them. */
export interface Named {
  photos: ReadonlyMap<string, number>;
  sets: ReadonlyMap<string, number>;
}

function optionsOf({ options }: DemoArrangement, { photos, sets }: Named): ArrangementOptions {
  const { between, galleries } = options as {
    between?: { before: string | null; heading: string; text: string }[];
    galleries?: { photo: string; set: string; text: string }[];
  };
  return wholeOptions({
    ...options,
    ...(between && {
      between: between.map(({ before, heading, text }) => ({
        before: before === null ? null : photos.get(before)!,
        heading,
        passage: [{ kind: 'paragraph', runs: [{ text }] }],
      })),
    }),
    ...(galleries && {
      galleries: galleries.map(({ photo, set, text }) => ({
        photo: photos.get(photo)!,
        set: sets.get(set)!,
        text,
      })),
    }),
  } as unknown as ArrangementOptions);
}

/** What makes the arrangements and the page of a set, and puts its photos where they stand. */
export function pageCommands({ photos, arrangements, page }: DemoPages, named: Named): Command[] {
  const slots = arrangements.flatMap((one): Command[] => {
    const { shortName, title, container, photos: order } = one;
    const { cell, large } = slotsOfArrangement({
      ...{ shortName, title, container: readWidth(container).rule, options: optionsOf(one, named) },
      order: order.map((file) => named.photos.get(file)!),
    });
    return [cell, ...(large ? [large] : [])].map((slot) => ({ kind: 'slot', slot: slot.id, value: slot }));
  });
  const standing = photos.map(({ file }): Command => {
    const own = arrangements.filter((one) => one.photos.includes(file));
    const bare = placementsFor(
      { placements: [] },
      own.map(({ shortName }) => shortName),
    )!;
    const placements = bare.map((spot, n): Placement => ({ ...spot, ...own[n]!.here?.[file] }));
    return { kind: 'placements', photo: named.photos.get(file)!, placements };
  });
  return [
    ...slots,
    ...standing,
    { kind: 'set', change: { page: { ...page, template: '' }, arranged: true } },
  ];
}
