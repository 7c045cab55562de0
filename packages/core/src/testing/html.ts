// Elements of parsed HTML, for tests.
import { defaultTreeAdapter as tree, type DefaultTreeAdapterTypes } from 'parse5';

type Node = DefaultTreeAdapterTypes.ParentNode;
type Element = DefaultTreeAdapterTypes.Element;

/** All elements of a name below a node, in order; what lies in templates is not there. */
export function all(node: Node, name: string): Element[] {
  return node.childNodes.flatMap((child) => {
    if (!tree.isElementNode(child)) return [];
    return [...(child.tagName === name ? [child] : []), ...all(child, name)];
  });
}

export const attributes = (element: Element): Record<string, string> =>
  Object.fromEntries(element.attrs.map(({ name, value }) => [name, value]));
