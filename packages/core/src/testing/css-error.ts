// For tests: the mistake that a piece of CSS is refused for.
import { CssError } from '../css/errors.ts';

/** What `act` throws, when it is a CssError. @throws Error when nothing is wrong. */
export function cssErrorOf(act: () => unknown): CssError {
  try {
    act();
  } catch (error) {
    if (error instanceof CssError) return error;
    throw error;
  }
  throw new Error('Nothing was wrong.');
}
