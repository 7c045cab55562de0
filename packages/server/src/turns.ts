// Long computations on the main thread, in turns: nobody else waits for their end.

/** Milliseconds of a turn; what was asked meanwhile is answered between two. */
const TURN = 15;

/** Lets everything that waits have its turn. */
const breathe = () => new Promise<void>((done) => setImmediate(done));

/** Items one after another, a turn at a time: for loops that do something costly with each. */
export async function* inPassing<T>(items: Iterable<T>): AsyncGenerator<T, undefined> {
  let from = performance.now();
  for (const item of items) {
    if (performance.now() - from >= TURN) {
      await breathe();
      from = performance.now();
    }
    yield item;
  }
}

/** Runs a computation that pauses often, a turn at a time. @returns what it returns; what it throws is thrown */
export async function inTurns<T>(computation: Generator<void, T, void>): Promise<T> {
  for (let from = performance.now(); ;) {
    const step = computation.next();
    if (step.done) return step.value;
    if (performance.now() - from < TURN) continue;
    await breathe();
    from = performance.now();
  }
}
