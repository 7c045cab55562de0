// Where the server says what an operator should know: one line a matter, errors with their cause.

export type Report = (sentence: string, error?: unknown) => void;

/** To standard error, with the time. */
export const reportToConsole: Report = (sentence, error) => {
  const cause =
    error instanceof Error
      ? ` ${error.stack ?? error.message}`
      : error === undefined
        ? ''
        : ` ${JSON.stringify(error)}`;
  console.error(`${new Date().toISOString()} ${sentence}${cause}`);
};
