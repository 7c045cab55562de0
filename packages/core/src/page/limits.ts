// How long texts of a page may be, in characters.

export const LONGEST_TITLE = 200;
export const LONGEST_DESCRIPTION = 500;
