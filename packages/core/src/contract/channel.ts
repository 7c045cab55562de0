// What the events of a set are called on the line that all sets share.

/** The type of the server-sent events that tell of a set. */
export const channelName = (setId: number): string => `set-${setId}`;
