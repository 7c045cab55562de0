// What went wrong in a typed piece of CSS, and where.

/** An error that names the character: `position` counts from 0, the sentence from 1. */
export class CssError extends Error {
  constructor(
    readonly text: string,
    readonly position: number,
    reason: string,
  ) {
    const character = text[position];
    super(
      character === undefined
        ? `At the end, after character ${text.length}: ${reason}`
        : `At character ${position + 1}, “${character}”: ${reason}`,
    );
    this.name = 'CssError';
  }
}
