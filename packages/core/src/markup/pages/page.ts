// The page of a set: its parts in order, in one of the designs that ship or in the editor's own file.
import { arrangementIn } from '../../arrange/cells.ts';
import type { Slot } from '../../contract/index.ts';
import { widthAt } from '../../css/width-rule.ts';
import { indent, tag } from '../../html/html.ts';
import { saidIn, spokenMarkup } from '../../html/languages.ts';
import { slugOf } from '../../naming/naming.ts';
import { slotsOf } from '../../plan/set-places.ts';
import { PHONE } from '../../slots/devices.ts';
import { standable } from '../../slots/slots.ts';
import { arrangedMarkup } from '../arranged/arranged.ts';
import { partId } from '../arranged/styles.ts';
import { columnClass, isFloated } from '../designs.ts';
import { saidPassage } from '../passage.ts';
import { figureMarkup, rowMarkup } from '../picture.ts';
import { aboveOf, documentMarkup, languagesMarkup } from './document.ts';
import { languageOf, lookOf, readingOf, textOf, titleOf, type PageOptions } from './options.ts';

/** A laptop's window, and the column of texts in it; CSS px. */
const LAPTOP = 1280;
const TEXT = 720;

const placeTitle = ({ name, words }: Slot, options: PageOptions): string =>
  spokenMarkup(titleOf({ title: name, words }, options), languageOf(options));

/** The photos of one place; "" where none has its files. */
export function placeMarkup(slot: Slot, first: boolean, titled: boolean, options: PageOptions): string {
  const { rows, setPlaces, context, urlOf, wordsLanguage } = options;
  const standing = rows.filter((row) => slotsOf(row, setPlaces).includes(slot.id));
  const arrangement = arrangementIn(slot);
  if (arrangement) {
    const under = titled ? 'h3' : 'h2';
    return arrangedMarkup({ ...lookOf(options, arrangement), rows: standing, first, under });
  }
  const figures = standing.flatMap((row, n) => {
    const figure = figureMarkup({
      row,
      slot,
      first: first && n === 0,
      both: context.policy.modern === 'both',
      ...(options.sink && { sink: options.sink }),
      language: languageOf(options),
      ...(wordsLanguage && { wordsLanguage: wordsLanguage(row) }),
      urlOf: (variant) => urlOf(row, variant),
    });
    return figure ? [figure] : [];
  });
  return figures.length > 0 ? rowMarkup(slot, figures) : '';
}

/** Whether a place is as wide as a phone's window: then it has no margin beside it. */
const reachesEdges = (slot: Slot): boolean => widthAt(slot.rule, PHONE.viewport) >= PHONE.viewport;

/** A place as wide as a column of text, which one alone takes: it stands where the texts do. */
function isColumn(slot: Slot): boolean {
  const wide = widthAt(slot.rule, LAPTOP);
  return wide > TEXT / 2 && wide <= TEXT;
}

/** A place in a box of the width that it is planned for. */
export function boxed(slot: Slot, inside: string, titled: boolean, options: PageOptions): string {
  const arrangement = arrangementIn(slot);
  const kind = arrangement
    ? `part sized ${columnClass(slot.id)}`
    : reachesEdges(slot)
      ? 'part place edge'
      : isColumn(slot)
        ? 'part text'
        : 'part place';
  const heading = titled ? `<h2>${placeTitle(slot, options)}</h2>\n` : '';
  // An arrangement has its own within.
  const open = tag('div', { class: kind, id: arrangement ? null : partId(slot.id) });
  return `${open}\n${indent(heading + inside)}\n</div>`;
}

/** Letters of a heading's id that its words give. */
const LONGEST_ID = 40;

/** Id of a heading by its words, which no other heading of the page has. @param given those that have one; it joins them */
function headingId(text: string, given: Set<string>): string {
  const base = `to-${slugOf(text, LONGEST_ID) || 'part'}`;
  let name = base;
  for (let n = 2; given.has(name); n += 1) name = `${base}-${n}`;
  given.add(name);
  return partId(name);
}

/** The parts of a page in order. Texts behind a figure that stands at a side flow around it, in its column. */
function partsMarkup(options: PageOptions): string {
  const { page, context } = options;
  const reading = readingOf(options);
  const slots = new Map(standable(context.slots).map((slot) => [slot.id, slot]));
  const blocks: string[] = [];
  /** The column that texts flow in, with what stands there so far. */
  let flowing: { slot: Slot; inside: string[] } | null = null;
  const end = () => {
    if (flowing)
      blocks.push(
        `<div class="part sized flow ${columnClass(flowing.slot.id)}">\n${indent(flowing.inside.join('\n'))}\n</div>`,
      );
    flowing = null;
  };
  let first = true;
  const headings = new Set<string>();
  for (const part of page.parts) {
    if (part.kind === 'text') {
      const said = saidIn(part.passage, part.others?.[reading.language], reading);
      const text = saidPassage(said, reading.language);
      if (text === '') continue;
      if (flowing) (flowing as { inside: string[] }).inside.push(text);
      else blocks.push(`<div class="part text">\n${indent(text)}\n</div>`);
      continue;
    }
    end();
    if (part.kind === 'heading') {
      const open = tag('h2', { class: 'part text', id: headingId(part.text, headings) });
      const said = saidIn(part.text, part.others?.[reading.language], reading);
      blocks.push(`${open}${spokenMarkup(said, reading.language)}</h2>`);
      continue;
    }
    if (part.kind === 'languages') {
      blocks.push(...languagesMarkup(options));
      continue;
    }
    const slot = slots.get(part.slot);
    const inside = slot ? placeMarkup(slot, first, part.titled, options) : '';
    if (!slot || inside === '') continue;
    first = false;
    if (isFloated(slot)) {
      const heading = part.titled ? [`<h2>${placeTitle(slot, options)}</h2>`] : [];
      flowing = { slot, inside: [...heading, inside] };
    } else blocks.push(boxed(slot, inside, part.titled, options));
  }
  end();
  return blocks.join('\n');
}

/** index.html: the first picture loads at once with high priority, the others lazily. */
export function pageMarkup(options: PageOptions): string {
  return documentMarkup(options, {
    title: textOf(options, 'title'),
    description: textOf(options, 'description'),
    above: aboveOf(options),
    main: partsMarkup(options),
  });
}
