// The pictures of an arrangement in lists: each as a figure that works without a script, with what scripts show of it.
import type { FeedPart, Gallery } from '../../contract/index.ts';
import { escapeHtml, indent, tag } from '../../html/html.ts';
import { saidIn, spokenMarkup } from '../../html/languages.ts';
import { wordsIn } from '../../plan/plan.ts';
import { styled } from '../inline-styles.ts';
import { saidPassage } from '../passage.ts';
import { altOf, belowPicture, figcaptionOf, targetIn } from '../picture.ts';
import { OWN } from '../styles.ts';
import { clickable } from './links.ts';
import {
  figureIn,
  foreign,
  pictureFor,
  pictureIn,
  readingIn,
  type ArrangedContext,
  type ArrangedItem,
} from './look.ts';
import { partId } from './styles.ts';

/** A figure whose caption lies over its picture, and its long description behind it, which nothing covers. */
function figureBefore(
  item: ArrangedItem,
  inside: readonly string[],
  longDescription: string,
  context: ArrangedContext,
): string {
  const figure = figureIn(item, inside, context);
  if (!longDescription) return figure;
  const behind = tag('div', { class: `${OWN}-behind`, ...foreign(item, context) });
  return `${figure}\n${behind}\n${indent(longDescription)}\n</div>`;
}

/** What of a photo's words stands with its figure: a description that is shown nowhere else is never left out. */
export type Below = 'all' | 'description' | 'nothing';

/** A figure of the picture with what stands below it. Behind it the long description where the caption lies over the picture. */
export function figureOf(
  item: ArrangedItem,
  n: number,
  context: ArrangedContext,
  shown: Below,
): string | null {
  const picture = clickable(item, n, context);
  if (!picture) return null;
  const { caption, longDescription } = belowPicture(pictureIn(item, item.cell, false, context));
  const { options } = context.arrangement;
  const isOver = 'captions' in options && options.captions === 'over';
  const below = {
    caption: shown === 'all' ? caption : '',
    longDescription: shown === 'nothing' ? '' : longDescription,
  };
  if (!isOver) return figureIn(item, [picture, ...figcaptionOf(below)], context);
  const over = figcaptionOf({ ...below, longDescription: '' });
  return figureBefore(item, [picture, ...over], below.longDescription, context);
}

/** The large picture with all of its words, for a script to show: nothing of it is loaded before. */
export function templateOf(item: ArrangedItem, context: ArrangedContext): string[] {
  if (!item.large) return [];
  const options = pictureIn(item, item.large, false, context);
  const picture = pictureFor(options, context);
  if (!picture) return [];
  const inside = figureIn(item, [picture, ...figcaptionOf(belowPicture(options))], context);
  return [`<template>\n${indent(inside)}\n</template>`];
}

interface CellsLook {
  /** Of each item. */
  style?: (n: number) => string;
  scrolls?: boolean;
  /** Texts that stand before pictures, or behind all of them. */
  between?: readonly FeedPart[];
}

/** A text of a feed as an item of it. */
function feedText({ heading, passage, others }: FeedPart, context: ArrangedContext): string[] {
  const { under = 'h2' } = context;
  const reading = readingIn(context);
  const own = others?.[reading.language];
  const title = saidIn(heading.trim(), own?.heading?.trim(), reading);
  const text = saidIn(passage, own?.passage, reading);
  const inside = [
    title.text && `<${under}>${spokenMarkup(title, reading.language)}</${under}>`,
    saidPassage(text, reading.language),
  ].filter(Boolean);
  return inside.length > 0 ? [`<li class="${OWN}-text">\n${indent(inside.join('\n'))}\n</li>`] : [];
}

export function cells(
  context: ArrangedContext,
  shown: Below,
  { style, scrolls = false, between = [] }: CellsLook = {},
): string {
  const { items } = context;
  const standing = new Set(items.map(({ photo }) => photo));
  const list = items.flatMap((item, n) => {
    const texts = between
      .filter(({ before }) => before === item.photo)
      .flatMap((part) => feedText(part, context));
    const figure = figureOf(item, n, context, shown);
    if (!figure) return texts;
    const inside = [figure, ...templateOf(item, context)].join('\n');
    return [...texts, `${tag('li', styled(style?.(n), context.sink))}\n${indent(inside)}\n</li>`];
  });
  // A text whose picture is gone is not lost: it stands at the end.
  const last = between
    .filter(({ before }) => before === null || !standing.has(before))
    .flatMap((part) => feedText(part, context));
  // What scrolls is reached by keyboard, and has a name.
  const open = tag('ul', {
    class: `${OWN}-cells`,
    role: 'list',
    tabindex: scrolls ? 0 : null,
    'aria-label': scrolls ? context.phrases.slides : null,
  });
  return `${open}\n${indent([...list, ...last].join('\n'))}\n</ul>`;
}

/** The item with a picture that says nothing, since a text beside it does; its crop stays. */
function quiet(item: ArrangedItem): ArrangedItem {
  const { row, cell } = item;
  const words = { ...wordsIn(row, cell.id), role: 'decorative' as const };
  const placements =
    row.placements?.map((one) => (one.slot === cell.id ? { ...one, words: {} } : one)) ?? null;
  return { ...item, row: { ...row, words, placements } };
}

/**
 * Words over a picture, with a button that leads where it leads: named by the alt text of a photo that is there to lead
 * somewhere, else by its title. Then the picture is quiet, since the button says it.
 */
function overlaid(item: ArrangedItem, n: number, context: ArrangedContext): string | null {
  const words = wordsIn(item.row, item.cell.id);
  const target = targetIn(item.row, item.cell.id);
  const name = target && (words.role === 'functional' ? altOf(words) || words.title : words.title).trim();
  const shown = words.role === 'functional' && name ? quiet(item) : item;
  const picture = pictureFor(pictureIn(shown, item.cell, context.first && n === 0, context), context);
  if (!picture) return null;
  const title = words.title.trim();
  const lines = [
    title && title !== name && `<strong>${escapeHtml(title)}</strong>`,
    words.caption.trim() && `<span>${escapeHtml(words.caption.trim())}</span>`,
    target &&
      `${tag('a', {
        class: `${OWN}-more`,
        href: target.address,
        ...(target.newWindow && { target: '_blank', rel: 'noopener' }),
      })}${escapeHtml(name || target.address)}</a>`,
    words.credit.trim() && `<small>${escapeHtml(`${context.phrases.photo} ${words.credit.trim()}`)}</small>`,
  ].filter(Boolean);
  const below = lines.length > 0 ? [`<figcaption>\n${indent(lines.join('\n'))}\n</figcaption>`] : [];
  const { longDescription } = belowPicture(pictureIn(item, item.cell, false, context));
  return figureBefore(item, [picture, ...below], longDescription, context);
}

export function slides(context: ArrangedContext, over = false): string {
  const { items, phrases } = context;
  const list = items.flatMap((item, n) => {
    const figure = over ? overlaid(item, n, context) : figureOf(item, n, context, 'all');
    if (!figure) return [];
    const slide = tag('div', {
      role: 'group',
      'aria-roledescription': phrases.slide,
      'aria-label': phrases.picture(n + 1, items.length),
    });
    return [`${slide}\n${indent(figure)}\n</div>`];
  });
  // Without a script it scrolls, and by keyboard that takes the focus.
  const row = tag('div', {
    class: `${OWN}-slides`,
    tabindex: 0,
    role: 'group',
    'aria-label': phrases.slides,
  });
  return `${row}\n${indent(list.join('\n'))}\n</div>`;
}

/** Covers of galleries: each leads to the page of its set, or to an arrangement there. A cover whose gallery has no page any more is a picture alone. */
export function covers(context: ArrangedContext, galleries: readonly Gallery[]): string {
  const { phrases, pages } = context;
  const reading = readingIn(context);
  const list = context.items.flatMap((item, n) => {
    const gallery = galleries.find(({ photo }) => photo === item.photo);
    const page = gallery && pages?.of(gallery.set);
    const part = gallery?.part === undefined ? null : page?.parts.find(({ slot }) => slot === gallery.part);
    // An arrangement that its page shows no more is none that is led to.
    if (!gallery || !page || part === undefined) {
      const figure = figureOf(item, n, context, 'all');
      return figure ? [`<li>\n${indent(figure)}\n</li>`] : [];
    }
    // The gallery's title names the link: the picture says nothing beside it.
    const first = context.first && n === 0;
    const picture = pictureFor(pictureIn(quiet(item), item.cell, first, context), context);
    if (!picture) return [];
    const { title, photos } = part ?? page;
    const own = part ? part.others?.[reading.language] : page.others?.[reading.language]?.title;
    const named = spokenMarkup(saidIn(title, own, reading), reading.language);
    const address = pages!.addressOf(page);
    const link = tag('a', { href: part ? `${address}#${partId(part.slot)}` : address });
    const name = `<strong>${named}</strong> <small>${escapeHtml(phrases.count(photos))}</small>`;
    const text = saidIn(gallery.text.trim(), gallery.others?.[reading.language], reading);
    const inside = [
      `${link}\n${indent(`${picture}\n<span class="${OWN}-name">${name}</span>`)}\n</a>`,
      ...(text.text ? [`<figcaption>${spokenMarkup(text, reading.language)}</figcaption>`] : []),
    ];
    return [`<li>\n${indent(figureIn(item, inside, context))}\n</li>`];
  });
  return `${tag('ul', { class: `${OWN}-cells`, role: 'list' })}\n${indent(list.join('\n'))}\n</ul>`;
}

/** Links to the pages of an arrangement: earlier, each by its number, more. */
export function pageLinks(context: ArrangedContext, count: number): string {
  const { page, phrases, arrangement } = context;
  if (!page || count < 2) return '';
  const link = (n: number, text: string, name: string | null = null): string =>
    `<li>${tag('a', { href: page.addressOf(n), 'aria-label': name, 'aria-current': n === page.n && name ? 'page' : null })}${escapeHtml(text)}</a></li>`;
  const list = [
    ...(page.n > 1 ? [link(page.n - 1, phrases.before)] : []),
    ...Array.from({ length: count }, (_, n) => link(n + 1, String(n + 1), phrases.page(n + 1))),
    ...(page.n < count ? [link(page.n + 1, phrases.behind)] : []),
  ];
  const open = tag('nav', { class: `${OWN}-pages`, 'aria-label': phrases.pages(arrangement.title) });
  return `\n${open}\n${indent(`<ul role="list">\n${indent(list.join('\n'))}\n</ul>`)}\n</nav>`;
}
