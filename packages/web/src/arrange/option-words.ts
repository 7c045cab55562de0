// How options of arrangements and their choices are called.

export const NAMES: Record<string, string> = {
  side: 'Where',
  width: 'Width',
  caption: 'Caption',
  shape: 'Shape',
  narrowShape: 'On phones',
  columns: 'Columns',
  captions: 'Captions',
  click: 'A click',
  files: 'Files',
  download: 'Download',
  gap: 'Gap',
  height: 'Height of rows',
  change: 'Changes by',
  seconds: 'By itself',
  arrows: 'Controls',
  buttons: 'Their size',
  signs: 'Their colour',
  fit: 'Pictures',
  times: 'As large',
  direction: 'Direction',
  frame: 'Frame',
  corners: 'Corners',
  shadow: 'Shadow',
  effect: 'Pointed at',
  perPage: 'On a page',
  ownPages: 'Own pages',
  texts: 'Words',
  ink: 'Colour of words',
  scrim: 'Behind them',
};

const CHOICES: Record<string, string> = {
  left: 'at the left',
  right: 'at the right',
  centre: 'in the middle',
  full: 'all of the width',
  below: 'below',
  beside: 'beside',
  none: 'none',
  over: 'over the picture',
  viewer: 'in the viewer',
  nothing: 'does nothing',
  fade: 'fading',
  slide: 'sliding',
  inside: 'over the picture',
  outside: 'below the picture',
  down: 'down the page',
  sideways: 'sideways',
  line: 'a thin line',
  mat: 'paper around it',
  soft: 'soft',
  deep: 'deep',
  lighten: 'gets lighter',
  grow: 'grows a little',
  light: 'white, on dark',
  dark: 'black, on light',
  cut: 'fill their cells',
  whole: 'are seen whole',
};

/** The same word says another thing of some. */
const SAID: Record<string, Record<string, string>> = {
  click: { viewer: 'opens the viewer' },
  texts: { below: 'below the picture', over: 'over it, with a button' },
  effect: { none: 'stays as it is' },
};

/** A choice as it is said for its option. */
export const choiceName = (option: string, choice: string): string =>
  SAID[option]?.[choice] ?? CHOICES[choice] ?? choice;
