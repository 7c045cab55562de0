// What a drawing costs whoever draws it, counted as a browser pays it: every use of a filter, mask or pattern anew, on
// the area it works on, and everything that is drawn again by reference. See docs/methods/damaged-files.md.
import { drawingTree, type DrawingTree, type DrawnElement } from './svg-tree.ts';

/**
 * Milliseconds on one core for a picture of 1.5 megapixels drawn without a graphics card, measured in Chromium
 * (`npm run bench -- drawings`). They need to be right within a factor of two or three: what is hostile is beyond any.
 */
const COST = {
  /** An element, and a character of its geometry or text. */
  element: 0.006,
  character: 0.00005,
  /** One colour over the whole picture; a gradient, pattern or picture. */
  fill: 0.6,
  paint: 8,
  /** A layer of its own: opacity of a group, blending; a mask is several. */
  layer: 8,
  mask: 30,
  /** A dash of a dashed line. */
  dash: 0.0003,
  /** Steps of filters over the whole picture; radius in px, the cells of a kernel. */
  step: 60,
  blur: 75,
  turbulenceOctave: 90,
  morphology: 900,
  morphologyUnit: 9,
  convolutionUnit: 45,
  lighting: 200,
  displacement: 100,
} as const;

/** What is drawn where it is referred to, and not where it stands. */
const ASIDE = new Set([
  ...[
    'defs',
    'symbol',
    'clippath',
    'mask',
    'pattern',
    'marker',
    'filter',
    'lineargradient',
    'radialgradient',
    'style',
  ],
  ...['title', 'desc', 'metadata', 'animate', 'animatetransform', 'animatemotion', 'animatecolor', 'script'],
]);
const SHAPES = new Set([
  'rect',
  'circle',
  'ellipse',
  'line',
  'polygon',
  'polyline',
  'path',
  'text',
  'image',
  'tspan',
]);
/** Properties that children have from their parents, and that refer to something that is painted. */
const PAINTS = ['fill', 'stroke'] as const;
const MARKERS = ['marker', 'marker-start', 'marker-mid', 'marker-end'] as const;

/** Part of the picture that a shape is taken to cover where its numbers don’t say it. */
const SOME = 0.005;

const REFERENCE = /url\(\s?["']?#([^"')]{1,500})/g;

const referencesIn = (values: readonly string[]): string[] =>
  values.flatMap((value) => [...value.matchAll(REFERENCE)].map(([, id]) => id!));

const numbersIn = (text: string): number[] =>
  (text.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d{1,3})?/gi) ?? []).map(Number).filter(Number.isFinite);

const numberOf = (text: string | undefined, missing: number): number => {
  const [first] = numbersIn(text ?? '');
  return first ?? missing;
};

class Counter {
  private readonly drawn = new Map<DrawnElement, number>();
  private readonly shapes = new Map<DrawnElement, number>();
  private readonly within: number;

  constructor(private readonly tree: DrawingTree) {
    const [svg] = tree.root.children;
    const box = numbersIn(svg?.attributes.viewBox ?? '');
    const size = [numberOf(svg?.attributes.width, 100), numberOf(svg?.attributes.height, 100)];
    this.within = Math.max(1e-9, (box[2] ?? size[0]!) * (box[3] ?? size[1]!));
  }

  /** Everything that is drawn for an element where it stands, in ms. Circles are drawn by nobody. */
  costOf(element: DrawnElement): number {
    return this.counted(this.drawn, element, () => this.own(element) + this.around(element));
  }

  private counted(known: Map<DrawnElement, number>, element: DrawnElement, count: () => number): number {
    const before = known.get(element);
    if (before !== undefined) return before;
    known.set(element, 0);
    const sum = count();
    known.set(element, sum);
    return sum;
  }

  private target(element: DrawnElement): DrawnElement | undefined {
    const { href = element.attributes['xlink:href'] } = element.attributes;
    return href?.startsWith('#') ? this.tree.byId.get(href.slice(1)) : undefined;
  }

  private inside(element: DrawnElement): DrawnElement[] {
    const shown = element.children.filter(({ name }) => !ASIDE.has(name.toLowerCase()));
    const target = element.name === 'use' ? this.target(element) : undefined;
    return target ? [...shown, target] : shown;
  }

  /** What is painted for an element, with all that is drawn in it again. */
  private shapesIn(element: DrawnElement): number {
    return this.counted(this.shapes, element, () =>
      this.inside(element).reduce((sum, one) => sum + this.shapesIn(one), SHAPES.has(element.name) ? 1 : 0),
    );
  }

  private own(element: DrawnElement): number {
    const { d = '', points = '' } = element.attributes;
    const area = this.areaOf(element);
    const painted = SHAPES.has(element.name) ? COST.fill * area + this.dashes(element) : 0;
    return (
      COST.element +
      COST.character * (d.length + points.length) +
      painted +
      this.inside(element).reduce((sum, one) => sum + this.costOf(one), 0)
    );
  }

  /** Part of the picture that a shape covers, as far as its own numbers say it; a little where they don’t. */
  private areaOf({ name, attributes }: DrawnElement): number {
    const { width, height, r, rx, ry } = attributes;
    const part = (text: string | undefined) =>
      text?.endsWith('%') ? (numberOf(text, 0) / 100) * Math.sqrt(this.within) : numberOf(text, 0);
    const area =
      name === 'rect' || name === 'image'
        ? part(width) * part(height)
        : name === 'circle'
          ? 3.2 * part(r) ** 2
          : name === 'ellipse'
            ? 3.2 * part(rx) * part(ry)
            : SOME * this.within;
    return Math.min(1, Math.abs(area) / this.within);
  }

  /** Part of the picture that a filter or mask works on: around a shape whose numbers say where it ends, else all of it. */
  private reachOf(element: DrawnElement): number {
    const isPlain = ['rect', 'image', 'circle', 'ellipse'].includes(element.name);
    return isPlain ? Math.min(1, 1.5 * this.areaOf(element) + SOME) : 1;
  }

  /** Dashes of a line that is as long as its numbers allow; browsers give up at a million. */
  private dashes(element: DrawnElement): number {
    const patterns = this.tree.values(element, 'stroke-dasharray').map(numbersIn);
    const sums = patterns
      .map((numbers) => numbers.reduce((sum, n) => sum + Math.abs(n), 0))
      .filter((sum) => sum > 0);
    if (sums.length === 0) return 0;
    const { d = '', points = '' } = element.attributes;
    const numbers = numbersIn(`${d} ${points}`).map(Math.abs);
    const reach = numbers.reduce((most, n) => Math.max(most, n), Math.sqrt(this.within));
    return COST.dash * Math.min(1e6, (reach * (2 + numbers.length)) / Math.min(...sums));
  }

  /** What an element's own filter, mask, clip, opacity and paint add. Of several that it may have the dearest counts. */
  private around(element: DrawnElement): number {
    const { values } = this.tree;
    const dearest = (properties: readonly string[], cost: (target: DrawnElement) => number): number =>
      Math.max(
        0,
        ...properties
          .flatMap((property) => referencesIn(values(element, property)))
          .map((id) => this.tree.byId.get(id))
          .map((target) => (target ? cost(target) : 0)),
      );
    const isGroup = element.children.length > 0 || element.name === 'use';
    const blends =
      values(element, 'mix-blend-mode').some((mode) => mode !== 'normal') ||
      values(element, 'isolation').includes('isolate') ||
      (isGroup && values(element, 'opacity').some((opacity) => numberOf(opacity, 1) < 1));
    const area = SHAPES.has(element.name) ? this.areaOf(element) : 1;
    const reach = this.reachOf(element);
    const filters = reach * dearest(['filter'], (filter) => this.filterCost(filter));
    // Filters that are named and not referred to: blur(4px), drop-shadow(…).
    const named = values(element, 'filter').some((value) => /\b(?:blur|drop-shadow)\(/.test(value))
      ? COST.blur * reach
      : 0;
    const masks = dearest(['mask', 'mask-image'], (mask) => COST.mask * reach + this.insideOf(mask));
    const clips = dearest(['clip-path'], (clip) => this.insideOf(clip));
    const shapes = this.shapesIn(element);
    const covered = isGroup ? SOME : Math.max(SOME, area);
    const paints = PAINTS.reduce(
      (sum, paint) => sum + dearest([paint], (target) => this.paintCost(target, covered)),
      0,
    );
    const markers = dearest(MARKERS, (marker) => this.insideOf(marker)) * this.verticesIn(element);
    return (blends ? COST.layer : 0) * area + filters + named + masks + clips + paints * shapes + markers;
  }

  private insideOf({ children }: DrawnElement): number {
    return children.reduce((sum, one) => sum + this.costOf(one), 0);
  }

  /** What a pattern or gradient adds to each shape that it paints. */
  private paintCost(target: DrawnElement, area: number): number {
    if (target.name !== 'pattern') return COST.paint * area;
    const from = this.target(target);
    return COST.paint * area + this.insideOf(target) + (from && from !== target ? this.insideOf(from) : 0);
  }

  /** Points at which markers may stand, in all that is drawn in an element. */
  private verticesIn(element: DrawnElement): number {
    const { d = '', points = '' } = element.attributes;
    return (
      numbersIn(`${d} ${points}`).length + (element.children.length > 0 ? 4 * this.shapesIn(element) : 0)
    );
  }

  private filterCost({ children }: DrawnElement): number {
    return children.reduce<number>((sum, step) => sum + this.stepCost(step), COST.layer);
  }

  private stepCost({ name, attributes, children }: DrawnElement): number {
    switch (name.toLowerCase()) {
      case 'fegaussianblur':
      case 'fedropshadow':
        return COST.blur;
      case 'feturbulence':
        return COST.turbulenceOctave * Math.max(1, numberOf(attributes.numOctaves, 1));
      case 'femorphology':
        return COST.morphology + COST.morphologyUnit * Math.max(0, ...numbersIn(attributes.radius ?? '0'));
      case 'feconvolvematrix': {
        const [x = 3, y = x] = numbersIn(attributes.order ?? '3');
        return COST.step + COST.convolutionUnit * x * y;
      }
      case 'fediffuselighting':
      case 'fespecularlighting':
        return COST.lighting * Math.max(1, children.length);
      case 'fedisplacementmap':
        return COST.displacement;
      default:
        return name.toLowerCase().startsWith('fe') ? COST.step + COST.element * children.length : 0;
    }
  }
}

/**
 * What a cleaned drawing costs, in ms on one core for 1.5 megapixels without a graphics card. It errs upwards: rules of
 * a style element count for everything that they may mean.
 */
export function drawingCost(svg: string): number {
  const tree = drawingTree(svg);
  if (tree.beyondCounting) return Infinity;
  const counter = new Counter(tree);
  return tree.root.children.reduce((sum, one) => sum + counter.costOf(one), 0);
}
