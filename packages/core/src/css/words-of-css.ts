// The functions and at-rules of CSS that load nothing by themselves. What is not here, under whatever spelling, is taken
// for one that does.

const words = (text: string): ReadonlySet<string> => new Set(text.split(/\s+/).filter(Boolean));

/** Values and Units 5, Color 5, Transforms 2, Filter Effects, Shapes, Grid, Easing, Fonts, Lists; Selectors 4, Media Queries 5. */
export const HARMLESS_FUNCTIONS = words(`
  calc calc-size min max clamp round mod rem sin cos tan asin acos atan atan2 pow sqrt hypot log exp abs sign progress
  sibling-index sibling-count random var env attr toggle if inherit first-valid
  rgb rgba hsl hsla hwb lab lch oklab oklch color color-mix contrast-color light-dark device-cmyk alpha
  matrix matrix3d translate translatex translatey translatez translate3d scale scalex scaley scalez scale3d rotate rotatex
  rotatey rotatez rotate3d skew skewx skewy perspective
  blur brightness contrast drop-shadow grayscale hue-rotate invert opacity saturate sepia
  linear-gradient radial-gradient conic-gradient repeating-linear-gradient repeating-radial-gradient
  repeating-conic-gradient -webkit-linear-gradient -webkit-radial-gradient -webkit-repeating-linear-gradient
  -webkit-repeating-radial-gradient -webkit-gradient -moz-linear-gradient -moz-radial-gradient -o-linear-gradient
  from to color-stop
  inset circle ellipse polygon path rect xywh shape ray
  minmax repeat fit-content anchor anchor-size snap-block snap-inline
  cubic-bezier steps linear spring view scroll
  counter counters symbols format tech local stylistic styleset character-variant swash ornaments annotation
  is where not has matches any -webkit-any -moz-any nth-child nth-last-child nth-of-type nth-last-of-type nth-col
  nth-last-col lang dir host host-context slotted part cue highlight state active-view-transition-type
  view-transition-group view-transition-image-pair view-transition-old view-transition-new picker
  selector font-tech font-format supports style layer scroll-state at-rule named-feature
`);

/** Those whose blocks hold rules, or declarations, that load nothing by themselves. */
export const HARMLESS_AT_RULES = words(`
  media supports layer container scope starting-style font-face keyframes -webkit-keyframes -moz-keyframes -o-keyframes
  page property counter-style font-feature-values font-palette-values view-transition position-try
  stylistic styleset character-variant swash ornaments annotation historical-forms
  top-left-corner top-left top-center top-right top-right-corner bottom-left-corner bottom-left bottom-center bottom-right
  bottom-right-corner left-top left-middle left-bottom right-top right-middle right-bottom
`);
