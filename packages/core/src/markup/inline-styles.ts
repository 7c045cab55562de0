// What one element alone is styled by: in its style attribute, or by a class of a stylesheet, which pages need whose policy
// allows no styles within the page (CSP Level 3, style-src).
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { OWN } from './styles.ts';

/** Takes declarations, and gives the class that has them. */
export type StyleSink = (declarations: string) => string;

/** Attributes of an element with declarations of its own. @param sink without one they stand in the element itself */
export function styled(
  declarations: string | null | undefined,
  sink: StyleSink | undefined,
  className: string | null = null,
): { class: string | null; style: string | null } {
  if (!declarations) return { class: className, style: null };
  if (!sink) return { class: className, style: declarations };
  return { class: [className, sink(declarations)].filter(Boolean).join(' '), style: null };
}

/** Declarations of single elements as rules of a stylesheet. The same declarations have the same class, on every page and for good. */
export class ElementStyles {
  private readonly classes = new Map<string, string>();

  readonly sink: StyleSink = (declarations) => {
    const known = this.classes.get(declarations);
    if (known !== undefined) return known;
    const name = `${OWN}-s-${bytesToHex(sha256(utf8ToBytes(declarations))).slice(0, 10)}`;
    this.classes.set(declarations, name);
    return name;
  };

  /** The rules, in the order of their classes; "" for none. */
  get rules(): string {
    return [...this.classes]
      .map(([declarations, name]) => `.${name} { ${declarations}; }\n`)
      .sort()
      .join('');
  }
}
