// Where the files will lie on the site: the beginning of every address in copied markup.

export const LONGEST_PREFIX = 500;

/**
 * What is wrong with a path prefix, as a sentence, or null. It may be relative ("photos/"), root-relative
 * ("/media/2026/") or absolute ("https://media.example/").
 */
export function prefixProblem(prefix: string): string | null {
  if (prefix.length > LONGEST_PREFIX) return `A path is longer than ${LONGEST_PREFIX} characters.`;
  // eslint-disable-next-line no-control-regex -- browsers drop these inside addresses
  if (/[\s\u0000-\u001f"'<>\\^`{|}]/.test(prefix))
    return 'A path has no spaces, quotes or brackets; write %20 for a space.';
  if (/[?#]/.test(prefix)) return 'A path ends before “?” and “#”.';
  if (/^\/\//.test(prefix))
    return 'Write http:// or https:// before a host, or one slash for the site’s root.';
  const scheme = /^([a-z][a-z\d+.-]*):/i.exec(prefix)?.[1]?.toLowerCase();
  if (scheme !== undefined && scheme !== 'http' && scheme !== 'https')
    return `Pictures can’t be loaded from “${scheme}:” addresses.`;
  if (scheme !== undefined && !/^https?:\/\/[^/]+/i.test(prefix))
    return 'After http:// or https:// comes the name of a host.';
  return null;
}

/** A path under a prefix, with one slash between them. */
export const addressUnder = (prefix: string, path: string): string =>
  prefix === '' ? path : `${prefix.replace(/\/+$/, '')}/${path}`;
