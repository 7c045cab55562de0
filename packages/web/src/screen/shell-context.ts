// What the frame around a set's views hands to them.

/** What the shell offers to the views inside it. */
export interface ShellContext {
  /** Opens the file chooser. */
  chooseFiles: () => void;
  /** Takes files in. */
  take: (files: readonly File[]) => void;
}
