// What lies on the weigh bench: the picture itself, the file that is sent, and files that are tried; each with its bytes and
// what is seen of it. Asked for one after the other, what is looked at first; dropped when the bench looks elsewhere.
import type { Site, Slot, SlotShape } from '@dusky-otter/core/contract';
import { planShape } from '@dusky-otter/core/plan';
import type { LossyFormat } from '@dusky-otter/core/weight';
import { useMemo, useSyncExternalStore } from 'react';
import { lookAddress, variantAddress } from '../api/client.ts';
import type { Row } from '../server/hooks.ts';
import { allSaved } from '../server/state.ts';
import { Gauge, type Compared } from './gauge.ts';
import type { Measured } from './measure.worker.ts';

/** One way to have the picture. */
export interface Point {
  format: LossyFormat;
  quality: number;
}

export interface Tried extends Point {
  bytes: number;
  url: string;
  /** null until it is measured. */
  measured: Measured | null;
}

/** What is looked at: one size of one shape in one place. */
export interface Subject {
  setId: number;
  row: Row;
  slot: Slot;
  part: SlotShape;
  width: number;
  /** File px per CSS px at which it is looked at. */
  density: number;
}

/** Qualities that draw the curve of a format: evenly along what is seen, not along the encoder's scale. */
export const CURVE: Record<LossyFormat, readonly number[]> = {
  avif: [24, 36, 46, 55, 65, 78],
  webp: [25, 45, 62, 76, 86, 94],
  jpeg: [30, 48, 63, 76, 86, 93],
};

export const keyOf = ({ format, quality }: Point): string => `${format} ${quality}`;

/** Density at which a width is looked at; 1 for what is planned without one. */
export const densityOf = (row: Row, slot: Slot, part: SlotShape, site: Site, width: number): number =>
  planShape(row, slot, part.shape, site).find((v) => v.width === width)?.settings.density ?? 1;

/** The file of a point that is made already. */
const storedAt = ({ row, slot, part, width }: Subject, { format, quality }: Point) =>
  row.variants.find(
    (v) =>
      v.slot === slot.id &&
      v.shape === part.shape &&
      v.width === width &&
      v.format === format &&
      v.quality === quality &&
      v.bytes !== null,
  );

async function fetched(address: string, signal: AbortSignal): Promise<Blob> {
  const response = await fetch(address, { signal });
  if (response.ok) return response.blob();
  const { detail } = (await response.json().catch(() => ({}))) as { detail?: string };
  throw new Error(detail ?? `The server answered ${response.status}.`);
}

export interface Bench {
  reference: string | null;
  tried: ReadonlyMap<string, Tried>;
  problem: string | null;
}

const NOTHING: Bench = { reference: null, tried: new Map(), problem: null };

/** One subject on the bench: begins when somebody looks, and lets go of everything when nobody does. */
class BenchLooking {
  private bench = NOTHING;
  private gauge: Gauge | null = null;
  private gone = new AbortController();
  private compared: Compared | null = null;
  private wanted: Point[] = [];
  private running = false;
  private heard: () => void = () => undefined;

  constructor(
    private readonly subject: Subject,
    private readonly curve: readonly Point[],
  ) {}

  readonly now = (): Bench => this.bench;

  readonly subscribe = (heard: () => void): (() => void) => {
    this.heard = heard;
    this.gone = new AbortController();
    this.gauge = new Gauge();
    void this.run();
    return () => this.end();
  };

  private put(change: Partial<Bench>): void {
    if (this.gone.signal.aborted) return;
    this.bench = { ...this.bench, ...change };
    this.heard();
  }

  private keep(tried: Tried): void {
    this.put({ tried: new Map(this.bench.tried).set(keyOf(tried), tried) });
  }

  /** Looks at a point before everything that waits. */
  readonly want = (point: Point): void => {
    this.wanted = [point, ...this.wanted.filter((one) => keyOf(one) !== keyOf(point))];
    void this.run();
  };

  /** Goes on behind a problem. */
  readonly again = (): void => {
    this.put({ problem: null });
    void this.run();
  };

  private next(): Point | null {
    const missing = (point: Point) => !this.bench.tried.get(keyOf(point))?.measured;
    return this.wanted.find(missing) ?? this.curve.find(missing) ?? null;
  }

  private async run(): Promise<void> {
    if (this.running || !this.gauge || this.bench.problem !== null) return;
    this.running = true;
    const { gone } = this;
    try {
      this.compared ??= await this.reference();
      for (let point = this.next(); point; point = this.next()) await this.look(point, this.compared);
    } catch (error) {
      if (!gone.signal.aborted) this.put({ problem: error instanceof Error ? error.message : String(error) });
    } finally {
      this.running = false;
    }
  }

  private async reference(): Promise<Compared> {
    // What was decided a moment ago decides what is shown.
    await allSaved();
    const file = await fetched(this.address(null), this.gone.signal);
    this.put({ reference: URL.createObjectURL(file) });
    return { file, density: this.subject.density };
  }

  private address(point: Point | null): string {
    const { setId, row, slot, part, width } = this.subject;
    const stored = point && storedAt(this.subject, point);
    if (stored) return variantAddress(stored);
    return lookAddress(setId, row.id, { slot: slot.id, shape: part.shape, width, ...point });
  }

  private async look(point: Point, compared: Compared): Promise<void> {
    const file = await fetched(this.address(point), this.gone.signal);
    const tried: Tried = { ...point, bytes: file.size, url: URL.createObjectURL(file), measured: null };
    // Seen at once; measured a moment later.
    this.keep(tried);
    this.keep({ ...tried, measured: await this.gauge!.measure(compared, file) });
  }

  private end(): void {
    this.gone.abort();
    this.gauge?.end();
    this.gauge = null;
    this.compared = null;
    if (this.bench.reference) URL.revokeObjectURL(this.bench.reference);
    for (const { url } of this.bench.tried.values()) URL.revokeObjectURL(url);
    this.bench = NOTHING;
  }
}

const deaf = () => () => undefined;

/** What lies on the bench for a subject; `null`: nothing is looked at. Begins anew with every other subject. */
export function useBench(
  subject: Subject | null,
  formats: readonly LossyFormat[],
): Bench & { want: (point: Point) => void; again: () => void } {
  const decision = subject?.row.quality[subject.slot.id];
  const of =
    subject &&
    JSON.stringify([
      subject.row.id,
      subject.slot.id,
      subject.part.shape,
      subject.width,
      subject.row.original.hash,
      subject.row.frame,
      subject.density,
      formats,
      [decision?.frame, decision?.background, decision?.still],
    ]);
  const looking = useMemo(
    () =>
      subject &&
      new BenchLooking(
        subject,
        formats.flatMap((format) => CURVE[format].map((quality) => ({ format, quality }))),
      ),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `of` says when another subject lies there
    [of],
  );
  const bench = useSyncExternalStore(looking?.subscribe ?? deaf, looking?.now ?? (() => NOTHING));
  return { ...bench, want: looking?.want ?? deaf, again: looking?.again ?? deaf };
}
