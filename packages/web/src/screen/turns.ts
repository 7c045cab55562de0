// Long computations on the page's own thread, in turns: keys, scrolling and what moves go on meanwhile.

/** How long a turn may take, ms: less than a frame of 60 a second. */
const TURN = 10;

const breathe = () => new Promise<void>((done) => setTimeout(done));

/** The result of a computation that yields between its steps, each of which must be short. */
export async function inTurns<T>(computation: Generator<void, T, void>): Promise<T> {
  for (;;) {
    const until = performance.now() + TURN;
    for (let step = computation.next(); ; step = computation.next()) {
      if (step.done) return step.value;
      if (performance.now() > until) break;
    }
    await breathe();
  }
}
