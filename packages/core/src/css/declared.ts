// What the rules of a stylesheet declare, and for which elements at most: enough to say what they may cost.
import generate from 'css-tree/generator';
import { ident } from 'css-tree/utils';
import walk from 'css-tree/walker';
import type { CssNode, Declaration, Rule, Selector } from 'css-tree';
import { parsedCss } from './drawing-styles.ts';

/** A property in small letters, and its value as text. */
export type Declared = readonly [property: string, value: string];

export interface DeclaredRule {
  /** "#id", ".class", "kind" in small letters, or "*": what the elements that it means have in any case. */
  subjects: string[];
  declared: Declared[];
}

/** What a rule's selectors end with: the element that it means is of that kind, class or id; anything where it says none. */
function subjectsOf({ prelude }: Rule): string[] {
  if (prelude.type !== 'SelectorList') return ['*'];
  return prelude.children.toArray().map((selector) => {
    let own = '*';
    for (const part of (selector as Selector).children) {
      if (part.type === 'Combinator') own = '*';
      // Any one of them is enough to find it by.
      else if (part.type === 'IdSelector') own = `#${ident.decode(part.name)}`;
      else if (part.type === 'ClassSelector' && !own.startsWith('#')) own = `.${ident.decode(part.name)}`;
      else if (part.type === 'TypeSelector' && own === '*') own = ident.decode(part.name).toLowerCase();
    }
    return own;
  });
}

function declaredIn(node: CssNode): Declared[] {
  const found: Declared[] = [];
  walk(node, {
    visit: 'Declaration',
    enter: ({ property, value }: Declaration) =>
      void found.push([ident.decode(property).toLowerCase(), generate(value)]),
  });
  return found;
}

/** The rules of a stylesheet, those inside of conditions too; none where it can't be read. */
export function rulesIn(css: string): DeclaredRule[] {
  const rules: DeclaredRule[] = [];
  const tree = parsedCss(css, 'stylesheet');
  if (tree)
    walk(tree, {
      visit: 'Rule',
      enter: (rule: Rule) =>
        void rules.push({ subjects: subjectsOf(rule), declared: declaredIn(rule.block) }),
    });
  return rules;
}

/** What a style attribute declares. */
export function declarationsIn(style: string): Declared[] {
  const tree = parsedCss(style, 'declarationList');
  return tree ? declaredIn(tree) : [];
}
