// The page of a set: what may be said of one, and the one that follows from where photos stand.
import { arrangementIn } from '../arrange/cells.ts';
import type { PageEntry, PagePart, SetPage, Slot, SlotId } from '../contract/index.ts';
import { lineProblem, othersProblem, textsProblem } from '../html/languages.ts';
import { linkProblem } from '../html/link.ts';
import { isDeviceName } from '../naming/folders.ts';
import { widthAt } from '../css/width-rule.ts';
import { slugOf } from '../naming/naming.ts';
import { isSlotId } from '../places/problem.ts';
import { standable } from '../slots/slots.ts';
import { passageProblem } from '../html/passage.ts';
import { LONGEST_DESCRIPTION, LONGEST_TITLE } from './limits.ts';
import { templateProblem } from './template.ts';

const MOST_PARTS = 200;
const LONGEST_FOLDER = 60;

/** Whether a page may lie in a folder of this name, on every system. */
export const isFolder = (text: string): boolean =>
  text.length <= LONGEST_FOLDER && /^[a-z0-9]+(-[a-z0-9]+)*$/.test(text) && !isDeviceName(text);

/** A place as it comes onto a page: an arrangement under its title. */
export const partFor = (slot: Slot): PagePart => ({
  kind: 'place',
  slot: slot.id,
  titled: arrangementIn(slot) !== null,
});

/** A page as it follows from where photos stand: every place that has some, arrangements under their titles. */
export function firstPage(title: string, slots: readonly Slot[], used: (slot: SlotId) => boolean): SetPage {
  const parts = standable(slots)
    .filter(({ id }) => used(id))
    .map(partFor);
  return {
    ...{ title, description: '', folder: freeFolder(title, []), home: null, menu: false },
    ...{ design: 'plain', tone: 'light', template: '', parts },
  };
}

/** A folder for a page that none of the others has. */
export function freeFolder(title: string, others: readonly string[]): string {
  const base = (slugOf(title) || 'page').slice(0, LONGEST_FOLDER - 4).replace(/-+$/, '');
  const names = [base, ...Array.from({ length: others.length + 2 }, (_, n) => `${base}-${n + 2}`)];
  return names.find((name) => !others.includes(name) && isFolder(name))!;
}

function partProblem(part: PagePart): string | null {
  switch (part.kind) {
    case 'heading':
      return part.text.trim() === '' || part.text.length > LONGEST_TITLE
        ? `A heading has 1 to ${LONGEST_TITLE} characters.`
        : othersProblem(part.others, lineProblem(LONGEST_TITLE));
    case 'text':
      return passageProblem(part.passage) ?? othersProblem(part.others, passageProblem);
    case 'languages':
      return null;
    case 'place':
      return isSlotId(part.slot) ? null : 'There is no such place.';
  }
}

/** What is wrong with a page, as a sentence, or null. */
export function pageProblem(page: SetPage): string | null {
  const { title, description, folder, home, design, template, parts } = page;
  if (title.trim() === '' || title.length > LONGEST_TITLE)
    return `A page has a title of up to ${LONGEST_TITLE} characters.`;
  if (description.length > LONGEST_DESCRIPTION)
    return `A description has up to ${LONGEST_DESCRIPTION} characters.`;
  if (isDeviceName(folder)) return `Windows can’t make a folder called “${folder}”: take another name.`;
  if (!isFolder(folder)) return 'A page’s folder has small letters, digits and hyphens.';
  if (parts.length > MOST_PARTS) return `A page has up to ${MOST_PARTS} parts.`;
  const places = parts.flatMap((part) => (part.kind === 'place' ? [part.slot] : []));
  if (new Set(places).size !== places.length) return 'A place stands on a page once.';
  if (home && (home.text.trim() === '' || home.address.trim() === ''))
    return 'The link home has a text and an address.';
  const wrong = home && linkProblem(home.address);
  if (wrong) return wrong;
  const spoken = othersProblem(
    page.others,
    textsProblem({
      title: lineProblem(LONGEST_TITLE),
      description: lineProblem(LONGEST_DESCRIPTION),
      home: lineProblem(LONGEST_TITLE),
    }),
  );
  if (spoken) return spoken;
  if (parts.filter(({ kind }) => kind === 'languages').length > 1)
    return 'The links to other languages stand on a page once.';
  const missing = design === 'own' ? templateProblem(template) : null;
  return missing ?? parts.map(partProblem).find((problem) => problem !== null) ?? null;
}

/** From the page of one set to that of another: pages lie in folders beside each other. */
export const addressOfPage = ({ folder }: Pick<PageEntry, 'folder'>): string => `../${folder}/`;

/** Photos from which on a page of them all, one below the other, would be too long to be read. */
const MANY = 7;

/**
 * The place that is proposed for all photos of a set whose page is empty: few stand one below the other, as wide as a
 * text, many side by side.
 * @param photos how many there are
 * @returns null where the site has no place
 */
export function proposedPlace(slots: readonly Slot[], photos: number): Slot | null {
  const places = standable(slots);
  const widthOf = ({ rule }: Slot): number => widthAt(rule, 1280);
  // By their widths on a laptop: a text's width is about half of it, a thumbnail's a fifth.
  const wanted = photos < MANY ? 640 : 256;
  const distance = (slot: Slot): number => Math.abs(Math.log(Math.max(1, widthOf(slot)) / wanted));
  return places.reduce<Slot | null>(
    (best, slot) => (best && distance(best) <= distance(slot) ? best : slot),
    null,
  );
}
