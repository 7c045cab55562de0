// Asks the worker that measures. It holds one reference: whoever asks with another brings it along.
import type { MeasureAnswer, Measured, ToMeasure } from './measure.worker.ts';

export interface Compared {
  file: Blob;
  density: number;
}

export class Gauge {
  private readonly worker = new Worker(new URL('./measure.worker.ts', import.meta.url), { type: 'module' });
  private readonly waiting = new Map<number, { done: (m: Measured) => void; failed: (e: Error) => void }>();
  private held: Compared | null = null;
  private last = 0;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<MeasureAnswer>) => {
      const asked = this.waiting.get(data.id);
      this.waiting.delete(data.id);
      if ('problem' in data) asked?.failed(new Error(data.problem));
      else asked?.done(data.measured);
    };
    this.worker.onerror = ({ message }) => {
      for (const { failed } of this.waiting.values()) failed(new Error(message));
      this.waiting.clear();
    };
  }

  /** What is seen of a file beside its reference. */
  measure(reference: Compared, file: Blob): Promise<Measured> {
    const id = ++this.last;
    const fresh = this.held !== reference;
    this.held = reference;
    const question: ToMeasure = { id, reference: fresh ? reference : null, file };
    return new Promise((done, failed) => {
      this.waiting.set(id, { done, failed });
      this.worker.postMessage(question);
    });
  }

  end(): void {
    this.worker.terminate();
    const over = new Error('Nobody looks any more.');
    for (const { failed } of this.waiting.values()) failed(over);
    this.waiting.clear();
  }
}
