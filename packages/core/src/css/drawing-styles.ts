// Styles inside a drawing: only properties that a drawing is painted by, and nothing that is loaded from elsewhere.
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import walk from 'css-tree/walker';
import { ident } from 'css-tree/utils';
import type { CssNode, List } from 'css-tree';
import { harmless } from './harmless.ts';

/** Properties of SVG 2 (styling, geometry, painting, text), Masking, Filter Effects, Transforms, Animations, Fonts. */
export const DRAWING_PROPERTIES: ReadonlySet<string> = new Set(
  `alignment-baseline all animation animation-composition animation-delay animation-direction animation-duration
  animation-fill-mode animation-iteration-count animation-name animation-play-state animation-timing-function
  background background-color baseline-shift baseline-source clip clip-path clip-rule color color-interpolation
  color-interpolation-filters color-rendering color-scheme cx cy d direction display dominant-baseline enable-background
  fill fill-opacity fill-rule filter flood-color flood-opacity font font-display font-family font-feature-settings
  font-kerning font-optical-sizing font-palette font-size font-size-adjust font-stretch font-style font-variant
  font-variant-alternates font-variant-caps font-variant-east-asian font-variant-ligatures font-variant-numeric
  font-variant-position font-variation-settings font-weight glyph-orientation-horizontal glyph-orientation-vertical height
  image-rendering isolation kerning letter-spacing lighting-color line-height marker marker-end marker-mid marker-start
  mask mask-clip mask-composite mask-image mask-mode mask-origin mask-position mask-repeat mask-size mask-type max-height
  max-width min-height min-width mix-blend-mode object-fit object-position offset offset-anchor offset-distance
  offset-path offset-position offset-rotate opacity overflow overflow-x overflow-y paint-order pointer-events r rotate rx
  ry scale shape-inside shape-margin shape-rendering shape-subtract size-adjust src stop-color stop-opacity stroke
  stroke-dasharray stroke-dashoffset stroke-linecap stroke-linejoin stroke-miterlimit stroke-opacity stroke-width
  text-align text-anchor text-decoration text-decoration-color text-decoration-fill text-decoration-line
  text-decoration-stroke text-decoration-style text-decoration-thickness text-indent text-orientation text-overflow
  text-rendering text-transform text-underline-offset text-underline-position transform transform-box transform-origin
  transform-style transition transition-delay transition-duration transition-property transition-timing-function translate
  unicode-bidi unicode-range vector-effect visibility white-space width will-change word-break word-spacing writing-mode
  x y -inkscape-font-specification -webkit-font-smoothing`
    .split(/\s+/)
    .filter(Boolean),
);

/** Pictures and fonts that a drawing carries inside itself. */
const EMBEDDED =
  /^data:(?:image\/(?:png|jpe?g|gif|webp)|font\/[a-z0-9-]{1,20}|application\/(?:x-)?font-[a-z0-9-]{1,20});base64,/i;

const loadsNothing = (css: string): string =>
  harmless(css, { address: (address) => (EMBEDDED.test(address) ? address : null) });

const isPaintedBy = (property: string): boolean => {
  const name = ident.decode(property).toLowerCase();
  return name.startsWith('--') || DRAWING_PROPERTIES.has(name);
};

/** A stylesheet, or declarations, parsed; null where it is nested more deeply than anybody writes. */
export function parsedCss(css: string, context: 'stylesheet' | 'declarationList'): CssNode | null {
  try {
    return parse(css, { context, parseCustomProperty: false });
  } catch (error) {
    // The parser calls itself for what stands inside each other.
    if (error instanceof RangeError || error instanceof SyntaxError) return null;
    throw error;
  }
}

/** What is no declaration or rule that was understood goes, and every property that paints nothing. */
function reduced(css: string, context: 'stylesheet' | 'declarationList'): string {
  const tree = parsedCss(css, context);
  if (!tree) return '';
  try {
    // The root stands in no list, whatever the package's types say.
    walk(tree, (node, item, list: List<CssNode> | null) => {
      // In a list stands what was not understood, among declarations and rules.
      const goes = node.type === 'Raw' || (node.type === 'Declaration' && !isPaintedBy(node.property));
      if (goes) list?.remove(item);
    });
    return generate(tree);
  } catch (error) {
    if (error instanceof RangeError) return '';
    throw error;
  }
}

/** Until nothing changes: what is taken away may have parted something that now stands together. */
function settled(css: string, step: (css: string) => string): string {
  let now = css;
  for (let round = 0; round < 5; round++) {
    const next = step(now);
    if (next === now) return now;
    now = next;
  }
  return '';
}

/** The stylesheet of a drawing. */
export const drawingSheet = (css: string): string =>
  settled(css, (text) => reduced(loadsNothing(text), 'stylesheet'));

/** What a style attribute says. */
export const drawingDeclarations = (css: string): string =>
  settled(css, (text) => reduced(loadsNothing(text), 'declarationList'));

/** The value of an attribute that is a property of CSS, such as `fill`, or that moves one. */
export const drawingValue = (css: string): string => settled(css, loadsNothing);
