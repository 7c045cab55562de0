// A whole document in a page's design: its head, what stands above its title, and the links to other pages and languages.
import { escapeHtml, indent, tag } from '../../html/html.ts';
import { isRightToLeft, marked, saidIn, spokenMarkup, type Said } from '../../html/languages.ts';
import { phrasesIn } from '../../html/phrases.ts';
import { filledTemplate } from '../../page/template.ts';
import { ownNameOf } from '../../words/language-tags.ts';
import { languageOf, readingOf, textOf, type PageOptions } from './options.ts';

/** Links to the other pages of the site; none where it is its only one. */
function menuMarkup(options: PageOptions): string[] {
  const { entries = [], addressOfPage, set } = options;
  const reading = readingOf(options);
  const listed = entries.filter(({ menu }) => menu);
  if (!addressOfPage || listed.length < 2) return [];
  const items = listed.map((entry) => {
    const open = tag('a', {
      href: addressOfPage(entry),
      // Within the set's page, but not the page itself: a further page of a gallery (WAI-ARIA 1.2, aria-current).
      'aria-current': entry.set !== set ? null : options.further ? 'true' : 'page',
    });
    const said = saidIn(entry.title, entry.others?.[reading.language]?.title, reading);
    return `<li>${open}${spokenMarkup(said, reading.language)}</a></li>`;
  });
  const { phrases } = phrasesIn(reading.language);
  const nav = tag('nav', { 'aria-label': phrases.menu });
  return [`${nav}\n${indent(`<ul>\n${indent(items.join('\n'))}\n</ul>`)}\n</nav>`];
}

/** Links to the same page in the site's other languages, each by its own name; none where there is one alone. */
export function languagesMarkup(options: PageOptions): string[] {
  const { languages = [] } = options;
  if (languages.length < 2) return [];
  const here = languageOf(options);
  const { phrases } = phrasesIn(here);
  const items = languages.map(({ language, address }) => {
    const open = tag('a', {
      ...{ href: address, hreflang: language, ...marked(language, here) },
      'aria-current': language === here ? 'page' : null,
    });
    return `<li>${open}${escapeHtml(ownNameOf(language))}</a></li>`;
  });
  const nav = tag('nav', { class: 'part text languages', 'aria-label': phrases.languages });
  return [`${nav}\n${indent(`<ul>\n${indent(items.join('\n'))}\n</ul>`)}\n</nav>`];
}

/** The links to other languages on a page that holds no parts of its own, where the set's page has them. */
export const languagesAbove = (options: PageOptions): string[] =>
  options.page.parts.some(({ kind }) => kind === 'languages') ? languagesMarkup(options) : [];

const homeMarkup = (options: PageOptions): string[] => {
  const { home } = options.page;
  const text = spokenMarkup(textOf(options, 'home'), languageOf(options));
  return home ? [`<p>${tag('a', { href: home.address })}${text}</a></p>`] : [];
};

/** What stands above the title of every page: the link home and the menu. */
export const aboveOf = (options: PageOptions): string[] => [...homeMarkup(options), ...menuMarkup(options)];

/** What a page is made of, wherever it stands: a whole one, or the marked spot of a template. */
export interface WholePage {
  title: Said<string>;
  /** Its heading as HTML, where that says something else than its title. */
  heading?: string;
  description: Said<string>;
  /** What stands above its title: the link home, the menu. */
  above: readonly string[];
  main: string;
}

/** An address as search engines want it, whole; as it is where nobody said where the site is found. */
const absolute = (canonical: string | undefined, address: string): string =>
  canonical === undefined ? address : new URL(address, canonical).href;

/**
 * The same page in every language, itself too, and which one is for all others
 * (https://html.spec.whatwg.org/multipage/links.html#rel-alternate).
 */
function alternatesOf(options: PageOptions): string[] {
  const { languages = [], canonical } = options;
  if (languages.length < 2) return [];
  const { main } = readingOf(options);
  const link = (hreflang: string, address: string) =>
    tag('link', { rel: 'alternate', hreflang, href: absolute(canonical, address) });
  return [
    ...languages.map(({ language, address }) => link(language, address)),
    ...languages.filter(({ language }) => language === main).map(({ address }) => link('x-default', address)),
  ];
}

/** A whole document in a page's design. */
export function documentMarkup(
  options: PageOptions,
  { title, heading: shown, description, above, main }: WholePage,
): string {
  const { page, base = '', scripted = false, canonical } = options;
  const language = languageOf(options);
  const links = [
    ...(description.text.trim()
      ? [
          tag('meta', {
            name: 'description',
            content: description.text.trim(),
            lang: marked(description.language, language).lang,
          }),
        ]
      : []),
    ...(canonical === undefined ? [] : [tag('link', { rel: 'canonical', href: canonical })]),
    ...alternatesOf(options),
    tag('link', { rel: 'stylesheet', href: `${base}styles.css` }),
    ...(scripted ? [`<script src="${base}script.js" defer></script>`] : []),
  ].join('\n');
  const heading = `<h1>${shown ?? spokenMarkup(title, language)}</h1>`;
  if (page.design === 'own') {
    const inside = /<h1[\s>]/i.test(page.template) ? main : `${heading}\n${main}`;
    return filledTemplate(page.template, escapeHtml(title.text), links, inside);
  }
  return `<!doctype html>
${tag('html', { lang: language, dir: isRightToLeft(language) ? 'rtl' : null })}
  <head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    ${tag('title', { lang: marked(title.language, language).lang })}${escapeHtml(title.text)}</title>
${indent(links, 2)}
  </head>
  ${tag('body', { class: `${page.design} ${page.tone}` })}
    <header>
${indent([...above, heading].join('\n'), 3)}
    </header>
    <main>
${indent(main, 3)}
    </main>
  </body>
</html>
`;
}
