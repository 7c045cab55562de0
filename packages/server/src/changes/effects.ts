// What a change touched, as plain data: it is kept with the act, so that what follows is found again after a lost answer.

export interface Effects {
  /** The site was changed; `plans` where files, weights or findings may be others. */
  site?: { id: number; plans: boolean };
  /** Sets whose own decisions, or the time of their last change, are others. */
  sets?: number[];
  /** Photos that were changed, came or left. */
  photos?: number[];
  /** Sets that these photos left. */
  left?: number[];
  /** Sets whose open places are others. */
  slots?: number[];
  /** Sets in which other files are offered. */
  offers?: number[];
  /** Sets whose refused files are others. */
  refusals?: number[];
  /** Sets of which names went out. */
  names?: number[];
  /** Made files that nothing knows any more: key and format. */
  files?: { key: string; format: string }[];
  /** An original came that nobody has read. */
  arrived?: boolean;
}
