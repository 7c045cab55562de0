// Results that depend on a site's slots and devices, kept as long as these are: thousands of photos share a few.

/** Results of one pair are few kinds of crops; a site of odd originals must not fill the memory with them. */
const MOST_KEPT = 2000;

/** @returns what was found for two objects and a key before, or what `find` finds now. */
export function kept<T>(): (of: [object, object], key: string, find: () => T) => T {
  const first = new WeakMap<object, WeakMap<object, Map<string, T>>>();
  return ([a, b], key, find) => {
    const second = first.get(a) ?? new WeakMap<object, Map<string, T>>();
    first.set(a, second);
    const results = second.get(b) ?? new Map<string, T>();
    second.set(b, results);
    const before = results.get(key);
    if (before !== undefined) return before;
    if (results.size >= MOST_KEPT) results.clear();
    const found = find();
    results.set(key, found);
    return found;
  };
}
