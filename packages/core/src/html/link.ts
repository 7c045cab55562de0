// Where a picture may lead.

export const LONGEST_LINK = 2000;

/** Schemes that lead somewhere and run nothing. */
const SCHEMES = ['http:', 'https:', 'mailto:', 'tel:'];

/** What is wrong with a link, as a sentence, or null. Addresses within the site have no scheme. */
export function linkProblem(link: string): string | null {
  if (link.length > LONGEST_LINK) return `A link is longer than ${LONGEST_LINK} characters.`;
  // Browsers drop these before they read the scheme.
  const read = link.replace(/[\s\p{Cc}]/gu, '');
  const scheme = /^[a-z][a-z\d+.-]*:/i.exec(read)?.[0].toLowerCase();
  return scheme === undefined || SCHEMES.includes(scheme)
    ? null
    : `A picture can’t lead to “${scheme}” addresses.`;
}

/** Whether an address leads on from where it stands: it names neither a scheme nor begins at a root. */
export const isRelative = (address: string): boolean => !/^(?:[a-z][a-z\d+.-]*:|\/)/i.test(address.trim());

/** How far a page lies below the folder that its relative addresses were written for. */
export interface Depth {
  /** From it to that folder, such as "../../"; "" for the same one. */
  base: string;
  /** From it to the page that it belongs to, within its language. */
  page: string;
}

/** A link as it is written in a page that lies deeper: what is relative leads where it led. */
export function linkFrom(link: string, { base, page }: Depth): string {
  const said = link.trim();
  if (said === '' || !isRelative(said)) return link;
  return `${said.startsWith('#') || said.startsWith('?') ? page : base}${said}`;
}
