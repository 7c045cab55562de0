// What people come to do, in their words: a few steps each, and the screen where it begins. The finder shows them, and
// `docs/guide.md` is written from them.

export interface Job {
  name: string;
  /** Other words that people use for it. */
  also: string;
  steps: readonly string[];
  /** Where it begins, below the set's address. */
  at: string;
}

export const JOBS: readonly Job[] = [
  {
    name: 'Add photos',
    also: 'upload import drop paste take in gather camera folder',
    steps: [
      'Drop photos or whole folders anywhere on the window, paste them, or press “Add photos”.',
      'Each gets a row. A file that is refused says why, and the others come in all the same.',
      'The originals stay as they are; dropping the same photo again does no harm.',
    ],
    at: 'gather',
  },
  {
    name: 'Replace a photo by a better one',
    also: 'exchange swap new version update same name',
    steps: [
      'Open the photo’s bench at Gather or Frame and choose a file that may take its place, or drop a file of the same name.',
      'Look at both side by side, and say which one stays.',
      'Crops and words are kept; what no longer fits is marked to be looked at.',
    ],
    at: 'gather',
  },
  {
    name: 'Straighten a photo',
    also: 'level rotate crooked horizon tilt slanted turn',
    steps: [
      'Open the photo at Frame.',
      'Press “Straighten”, or “Draw along a line” and draw along something level or upright.',
      'Where a line was found by itself, “Take it” turns the photo by what it says.',
    ],
    at: 'frame',
  },
  {
    name: 'Keep the subject in every crop',
    also: 'focal point face cut off thumbnail crop frame head',
    steps: [
      'Open the photo at Frame: its crops stand beside it.',
      'Put the focal point onto what matters, and press C to confirm it.',
      'Move a single crop by hand where it should differ; “Give back to automatic” undoes that.',
    ],
    at: 'frame',
  },
  {
    name: 'Say how wide photos are on my pages',
    also: 'size width place slot responsive column resize dimensions',
    steps: [
      'Open Places and press “Make a place”.',
      'Say its width in your own words: “half the text column, but full width on phones”.',
      'Look at what it makes of windows from phone to desktop, and apply it.',
    ],
    at: 'places',
  },
  {
    name: 'Measure the widths of a page that exists',
    also: 'read html website existing sizes breakpoints css',
    steps: [
      'Open “Measure a page” and drop the folder of the site, or its HTML file with the stylesheets.',
      'Every picture is measured in windows of many widths.',
      'Make places of the ones that you need.',
    ],
    at: 'measure',
  },
  {
    name: 'Why is this photo too heavy?',
    also: 'too big large kilobytes slow budget over weight bytes size reduce compress',
    steps: [
      'Open the photo at Weigh: over its budget it is marked, and the reason is said.',
      'Look at “Ways out”: each says what it saves and what is seen of it.',
      '“Take it” makes that file; “Give back” takes the decision away again.',
    ],
    at: 'weigh',
  },
  {
    name: 'Make a whole page lighter',
    also: 'faster speed limit total kilobytes budget performance compress',
    steps: [
      'At Weigh press “Set a limit for the page”, and say how much a phone may be sent.',
      'The plan says which files grow smaller, and how much is seen of it.',
      'Apply it to all, or leave out single photos.',
    ],
    at: 'limit',
  },
  {
    name: 'Choose formats and quality',
    also: 'avif webp jpeg png policy rules compression retina density setting',
    steps: [
      'Open the rules of the site.',
      'Choose the modern format, the faithfulness and the density; each says what it makes of this set.',
      'They hold for all photos of which nothing else was said.',
    ],
    at: 'rules',
  },
  {
    name: 'Write alt texts',
    also: 'alternative description accessibility words screen reader blind describe',
    steps: [
      'At Describe press W: the next photo without words is in hand.',
      'Say what the photo is here for, then what there is to see. The checks read along.',
      'Enter saves, and goes on to the next one.',
    ],
    at: 'describe',
  },
  {
    name: 'Say that a photo is only decoration',
    also: 'decorative ornament empty alt role ignore',
    steps: [
      'Open the photo at Describe.',
      'Press 1 to 5 outside a field to say what it is here for, and choose Decorative.',
      'It goes out with an empty alt, and nobody has to listen to it.',
    ],
    at: 'describe',
  },
  {
    name: 'Fill in many words at once',
    also: 'bulk pattern mass find replace credit photographer copyright several',
    steps: [
      'At Describe select the photos, and open “Words” at the foot of the table.',
      '“Fill in by a pattern” or “Find and replace” shows every change before it is made.',
      'One undo takes all of it back.',
    ],
    at: 'describe',
  },
  {
    name: 'Take words from a spreadsheet',
    also: 'csv excel table import alt list export translation agency',
    steps: [
      'At Describe open “Table of words”.',
      '“Choose a table” reads a CSV file; what fits no photo, or doubts, is shown first.',
      '“Take the words out as a table” is the way back, for somebody who writes elsewhere.',
    ],
    at: 'describe',
  },
  {
    name: 'Write in several languages',
    also: 'language translate translation german english multilingual french',
    steps: [
      'Say the languages of the site in its rules.',
      'Open “Texts in every language”: what is missing stands side by side with what is there.',
      'The bench of a photo has a field for each language, too.',
    ],
    at: 'texts',
  },
  {
    name: 'Hear how the page is read aloud',
    also: 'screen reader listen preview accessibility speech order',
    steps: [
      'Press “Read aloud” at Describe.',
      'Read the page as a screen reader says it, from head to foot.',
      'What is heard twice, or says nothing, is marked.',
    ],
    at: 'reading',
  },
  {
    name: 'Make a gallery of twelve a page',
    also: 'grid rows pagination pages several split thumbnails lightbox viewer',
    steps: [
      'At Arrange make a new arrangement and choose a grid or rows.',
      'Put the photos in, and order them.',
      'Set how many stand on a page to 12: further pages are made of themselves.',
    ],
    at: 'arrange',
  },
  {
    name: 'Make a hero or a rotating banner',
    also: 'slider carousel slideshow header large top fade headline',
    steps: [
      'At Arrange make a new arrangement and choose the rotating one.',
      'Put in its photos, and say words and links for each.',
      'Look at its crops for wide and narrow windows; only what is shown, and the next one, is loaded.',
    ],
    at: 'arrange',
  },
  {
    name: 'Put one thing on every page',
    also: 'everywhere header footer repeat banner all pages',
    steps: [
      'Open the page of the set, and pick the arrangement.',
      'Say that it stands on every page of the site, above or below what each holds.',
      'All pages are to be handed over again then; each says so.',
    ],
    at: 'page',
  },
  {
    name: 'Set out the page',
    also: 'order parts heading text layout composition preview',
    steps: [
      'Open the page of the set: its parts stand in order.',
      'Add headings and texts, and move parts up and down.',
      'Look at it at several widths, or open it in a window.',
    ],
    at: 'page',
  },
  {
    name: 'Load photos only when they are needed',
    also: 'lazy loading lazily performance first view eager',
    steps: [
      'Open a place at Places and look at “Loads”.',
      'What is seen first loads at once; all else waits until it comes near.',
      'Rehearse shows what a visitor loads, in which order.',
    ],
    at: 'places',
  },
  {
    name: 'Copy markup into my own site',
    also: 'html code picture srcset embed paste cms',
    steps: [
      'At Hand over choose a photo’s “Copy”, or copy for every place.',
      'The markup brings the styles of its place along; a tick in the menu turns that off.',
      'Say in the rules where the files lie on your site, and the addresses fit.',
    ],
    at: 'hand-over',
  },
  {
    name: 'Publish: take files and pages away',
    also: 'download zip export deliver upload go live hand over finish done',
    steps: [
      'At Hand over press “Download”.',
      'Look at what is not ready yet: each point leads to where it is mended.',
      'The ZIP holds files, pages and a manifest; unpack it where your site is.',
    ],
    at: 'hand-over',
  },
  {
    name: 'Get back what I changed or threw away',
    also: 'undo redo restore bin deleted lost mistake',
    steps: [
      'Ctrl Z takes back the last step; the foot of the path says what it was.',
      'Photos that were taken out lie in the bin at Gather, and can be put back.',
      'Everything is saved as you go.',
    ],
    at: 'gather',
  },
  {
    name: 'Leave out the photographer’s name',
    also: 'credit metadata privacy exif gps location copyright camera',
    steps: [
      'Open the rules, and look at “What goes into the files”.',
      'Where a photo was taken, and with what, never goes out.',
      'Credits stand with a photo’s words at Describe: empty the field where a name should not be shown.',
    ],
    at: 'rules',
  },
  {
    name: 'Give the pages clear file names',
    also: 'rename names seo speaking url fingerprint naming',
    steps: [
      'Give the photo a title at Describe: its files are named after it.',
      'Open the rules, and choose plain names or names with a fingerprint.',
      'A name that went out stays with its photo.',
    ],
    at: 'rules',
  },
];

/** The jobs as a document for people. */
export function guideOf(jobs: readonly Job[]): string {
  const parts = jobs.map(
    ({ name, steps }) => `## ${name}\n\n${steps.map((step, n) => `${n + 1}. ${step}`).join('\n')}\n`,
  );
  return [
    '# What you can do, and how\n',
    'The same list is in the application: press `/` and say what you want to do. The way there is the path on the left: Gather, Frame, Weigh, Describe, Arrange, Rehearse, Hand over.\n',
    ...parts,
  ].join('\n');
}
