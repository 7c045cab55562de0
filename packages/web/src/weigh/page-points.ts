// What every picture of a page could be had for: asked for one after the other, the heaviest first, kept as long as the
// screen is open. A picture whose crop, size or format is another one is asked for anew.
import type { QualityPoint, SentPicture } from '@dusky-otter/core/readiness';
import { useEffect, useState } from 'react';
import { api } from '../api/client.ts';

export interface PagePoints {
  /** By picture; empty where nothing can be found out. */
  points: ReadonlyMap<string, readonly QualityPoint[]>;
  /** Pictures that are still looked at. */
  left: number;
  problem: string | null;
}

/** What the points of a picture hang on. */
const fileOf = ({ id, row, variant }: SentPicture): string =>
  [
    id,
    row.original.hash,
    variant.shape,
    variant.width,
    variant.height,
    variant.format,
    JSON.stringify(row.frame),
  ].join(' ');

export function usePagePoints(setId: number, pictures: readonly SentPicture[]): PagePoints {
  const [known, setKnown] = useState<ReadonlyMap<string, readonly QualityPoint[]>>(new Map());
  const [problem, setProblem] = useState<string | null>(null);
  const free = pictures.filter(({ fixed }) => fixed === null);
  const next = [...free].sort((a, b) => b.bytes - a.bytes).find((picture) => !known.has(fileOf(picture)));
  const asked = next && fileOf(next);
  useEffect(() => {
    if (!next || asked === undefined) return;
    const gone = new AbortController();
    const { row, slot, variant } = next;
    const of = { slot: slot.id, shape: variant.shape, width: variant.width, format: variant.format };
    const keep = (points: readonly QualityPoint[]) =>
      setKnown((before) => new Map(before).set(asked, points));
    api.points(setId, row.id, of, gone.signal).then(
      ({ points }) => keep(points),
      (error: unknown) => {
        if (gone.signal.aborted) return;
        setProblem(error instanceof Error ? error.message : String(error));
        // It stays as it is; the others go on.
        keep([]);
      },
    );
    return () => gone.abort();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `asked` stands for the picture
  }, [setId, asked]);
  const points = new Map(
    free.flatMap((one) => {
      const own = known.get(fileOf(one));
      return own ? [[one.id, own] as const] : [];
    }),
  );
  return { points, left: free.length - points.size, problem };
}
