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
  const others = notices.filter(({ text, tone }) =>
    next.tone === 'plain' ? tone === 'bad' : text !== next.text || tone === 'plain',
  );
  const failures = others.filter(({ tone }) => tone === 'bad');
  const tooMany = new Set(
    failures.slice(0, Math.max(0, failures.length + Number(next.tone === 'bad') - MOST_FAILURES)),
  );
  return [...others.filter((notice) => !tooMany.has(notice)), next];
}

/** `notices` without `gone`. */
export const withoutNotice = (notices: readonly Notice[], gone: Notice): readonly Notice[] =>
  notices.filter((notice) => notice !== gone);
