// A cleaned drawing as what its cost hangs on: elements, what each refers to, and the rules of its style elements.
import { declarationsIn, rulesIn, type Declared } from '@dusky-otter/core/css';
import { SaxesParser } from 'saxes';

export interface DrawnElement {
  name: string;
  attributes: Readonly<Record<string, string>>;
  children: DrawnElement[];
}

export interface DrawingTree {
  root: DrawnElement;
  byId: ReadonlyMap<string, DrawnElement>;
  /** Values that a property of an element may have: of its attributes, its style and every rule that may mean it. */
  values: (element: DrawnElement, property: string) => readonly string[];
  /** It has so many classes, or so many values for one property, that counting them would take long. */
  beyondCounting: boolean;
}

/** Values by property. */
type Styles = Map<string, Set<string>>;

/** Different values of one property for one kind of element, and classes of one element, that are counted. */
const MOST_VALUES = 200;
const MOST_CLASSES = 200;

function put(styles: Styles, [property, value]: Declared): void {
  const known = styles.get(property);
  if (known) known.add(value);
  else styles.set(property, new Set([value]));
}

const classesOf = ({ attributes }: DrawnElement): string[] =>
  (attributes.class ?? '').split(/\s+/).filter(Boolean);

/** The rules of style elements by what they mean. */
function rulesOf(css: string): Map<string, Styles> {
  const rules = new Map<string, Styles>();
  for (const { subjects, declared } of rulesIn(css))
    for (const subject of subjects) {
      const styles = rules.get(subject) ?? new Map<string, Set<string>>();
      rules.set(subject, styles);
      for (const one of declared) put(styles, one);
    }
  return rules;
}

/** Reads a drawing; what is malformed is read on. */
export function drawingTree(svg: string): DrawingTree {
  const root: DrawnElement = { name: '', attributes: {}, children: [] };
  const byId = new Map<string, DrawnElement>();
  const open = [root];
  let css = '';
  let beyondCounting = false;
  const parser = new SaxesParser({ xmlns: false });
  parser.on('error', () => undefined);
  parser.on('opentag', ({ name, attributes }) => {
    const element: DrawnElement = { name: name.replace(/^.*:/, ''), attributes, children: [] };
    open.at(-1)!.children.push(element);
    open.push(element);
    const { id } = attributes;
    if (id !== undefined && !byId.has(id)) byId.set(id, element);
    beyondCounting ||= classesOf(element).length > MOST_CLASSES;
  });
  parser.on('closetag', () => {
    if (open.length > 1) open.pop();
  });
  const take = (text: string) => {
    if (open.at(-1)!.name === 'style') css += `${text}\n`;
  };
  parser.on('text', take);
  parser.on('cdata', take);
  parser.write(svg).close();
  const rules = rulesOf(css);
  for (const styles of rules.values())
    for (const known of styles.values()) beyondCounting ||= known.size > MOST_VALUES;
  const own = new WeakMap<DrawnElement, Styles>();
  const styleOf = (element: DrawnElement): Styles => {
    const before = own.get(element);
    if (before) return before;
    const styles: Styles = new Map();
    for (const one of declarationsIn(element.attributes.style ?? '')) put(styles, one);
    own.set(element, styles);
    return styles;
  };
  const values = (element: DrawnElement, property: string): string[] => {
    const { attributes, name } = element;
    const subjects = [
      '*',
      name.toLowerCase(),
      `#${attributes.id}`,
      ...classesOf(element).map((one) => `.${one}`),
    ];
    return [
      ...(attributes[property] === undefined ? [] : [attributes[property]]),
      ...(attributes.style === undefined ? [] : (styleOf(element).get(property) ?? [])),
      ...subjects.flatMap((subject) => [...(rules.get(subject)?.get(property) ?? [])]),
    ];
  };
  return { root, byId, values, beyondCounting };
}
