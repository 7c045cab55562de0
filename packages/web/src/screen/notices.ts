// What is being said at the foot of the screen: one plain line at a time, and every failure until it is put away.

export interface Notice {
  text: string;
  tone: 'plain' | 'bad';
}

/** As many failures as can be read at once; of more, the newest. */
export const MOST_FAILURES = 8;

/**
 * `notices`, and `next` under them. A plain line takes the place of the plain one before it; what failed is
 * never replaced by what went well later, and is not said twice.
 */
export function withNotice(notices: readonly Notice[], next: Notice): readonly Notice[] {
  const replaced = ({ text, tone }: Notice) => tone === next.tone && (tone === 'plain' || text === next.text);
  const lines = [...notices.filter((notice) => !replaced(notice)), next];
  const tooMany = lines.filter(({ tone }) => tone === 'bad').slice(0, -MOST_FAILURES);
  return lines.filter((line) => !tooMany.includes(line));
}

/** `notices` without `gone`. */
export const withoutNotice = (notices: readonly Notice[], gone: Notice): readonly Notice[] =>
  notices.filter((notice) => notice !== gone);
