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

/** Words that say no width which is known: there is no one character that is wrong. */
export class UnknownWords extends CssError {
  constructor(text: string) {
    super(text, 0, 'these words are not known.');
    this.name = 'UnknownWords';
    this.message = 'These words say no width that is known here.';
  }
}
