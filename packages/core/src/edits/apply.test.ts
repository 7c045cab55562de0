// Commands and their inverses: doing and taking back is as if nothing had been done.
import { describe, expect, test } from '@jest/globals';
import type { PhotoSet, Site } from '../contract/index.ts';
import { CONTEXT, placed, sampleFrame, samplePhoto, slotById } from '../testing/sample.ts';
import { DEFAULT_POLICY } from '../weight/target.ts';
import { turnFrame } from '../geometry/frame.ts';
import { applyToPhoto, applyToSet, applyToSite, placementsFor, type KnownOriginals } from './apply.ts';
import { CommandError, type PhotoCommand, type SiteCommand } from './commands.ts';

const photo = samplePhoto({
  frame: sampleFrame({ crops: { '1:1': { x: 5, y: 6, width: 700, height: 700 } } }),
  quality: { grid: { target: 'lean' } },
  placements: [{ ...placed('grid')[0]!, link: '/shop', words: { alt: 'To the shop' } }],
});
const turned = turnFrame(photo.frame, photo.original, 1);

const commands: PhotoCommand[] = [
  { kind: 'focal', photo: 1, focal: { x: 0.2, y: 0.9, confirmed: true } },
  { kind: 'crop', photo: 1, shape: '3:1', crop: { x: 0, y: 500, width: 3000, height: 1000 } },
  { kind: 'crop', photo: 1, shape: '1:1', crop: null },
  { kind: 'frame', photo: 1, frame: turned },
  { kind: 'words', photo: 1, language: 'en', words: { alt: 'New words', role: 'text' } },
  { kind: 'quality', photo: 1, slot: 'grid', decision: null },
  { kind: 'quality', photo: 1, slot: 'hero', decision: { pinned: 70 } },
  { kind: 'placements', photo: 1, placements: placed('viewer') },
  { kind: 'placements', photo: 1, placements: null },
  { kind: 'position', photo: 1, position: 'a0V' },
  { kind: 'bin', photo: 1, binned: true },
  {
    kind: 'original',
    photo: 1,
    original: 'cd'.repeat(32),
    fileName: 'New.jpg',
    frame: sampleFrame(),
    toRead: true,
  },
];
/** The photo's own, and one that was offered for it. */
const originals: KnownOriginals = (hash) => {
  const other = samplePhoto({}, { hash: 'cd'.repeat(32), width: 900, height: 600 }).original;
  return [photo.original, other].find((one) => one.hash === hash);
};

describe('photo commands', () => {
  test.each(commands)('$kind is taken back by its inverse', (command) => {
    const { change, inverse } = applyToPhoto(photo, command, originals);
    const changed = { ...photo, ...change };
    expect(changed).not.toEqual(photo);
    expect({ ...changed, ...applyToPhoto(changed, inverse, originals).change }).toEqual(photo);
  });
  test('who changes a word, or says that the words hold, has read them; undo brings the mark back', () => {
    const replaced = { ...photo, toRead: true };
    for (const words of [{ alt: 'New words' }, {}]) {
      const command: PhotoCommand = { kind: 'words', photo: 1, language: 'en', words };
      const { change, inverse } = applyToPhoto(replaced, command);
      expect(change.toRead).toBe(false);
      expect({ ...replaced, ...change, ...applyToPhoto({ ...replaced, ...change }, inverse).change }).toEqual(
        replaced,
      );
    }
  });
  test('an original takes its place only where it was offered, and with a frame that fits it', () => {
    const command = commands.at(-1) as Extract<PhotoCommand, { kind: 'original' }>;
    expect(() => applyToPhoto(photo, command)).toThrow(/was not offered/);
    expect(() => applyToPhoto(photo, { ...command, original: 'ef'.repeat(32) }, originals)).toThrow(
      /was not offered/,
    );
    // A crop of the old picture's size reaches outside the new one.
    const frame = sampleFrame({ crops: { '3:1': { x: 0, y: 0, width: 3000, height: 1000 } } });
    expect(() => applyToPhoto(photo, { ...command, frame }, originals)).toThrow(/outside/);
  });
  test('words leave the other words alone', () => {
    const { change } = applyToPhoto(photo, {
      kind: 'words',
      photo: 1,
      language: 'en',
      words: { caption: 'c' },
    });
    expect(change.words).toEqual({ ...photo.words, caption: 'c' });
  });
  test('places that a photo keeps keep what is decided there', () => {
    expect(placementsFor(photo, ['column', 'grid'])).toEqual([placed('column')[0], photo.placements![0]]);
    expect(placementsFor(photo, null)).toBeNull();
  });
  test.each([
    [{ kind: 'focal', photo: 1, focal: { x: 1.2, y: 0, confirmed: true } }, /outside/],
    [{ kind: 'focal', photo: 1, focal: { x: NaN, y: 0, confirmed: true } }, /outside/],
    [{ kind: 'crop', photo: 1, shape: '3:1', crop: { x: 0, y: 0, width: 100, height: 100 } }, /shape 3:1/],
    [{ kind: 'frame', photo: 1, frame: sampleFrame({ angle: 20 }) }, /15°/],
    [{ kind: 'placements', photo: 1, placements: placed('grid', 'grid') }, /twice/],
    [
      {
        kind: 'placements',
        photo: 1,
        placements: [{ ...placed('grid')[0]!, link: 'java\nscript:alert(1)' }],
      },
      /can’t lead/,
    ],
    [
      {
        kind: 'placements',
        photo: 1,
        placements: [{ ...placed('grid')[0]!, crops: { '1:1': { x: 0, y: 0, width: 9, height: 1 } } }],
      },
      /shape 1:1/,
    ],
    [{ kind: 'position', photo: 1, position: 'a0; DROP' }, /no place/],
    [{ kind: 'words', photo: 1, language: 'en', words: { alt: 'x'.repeat(10_001) } }, /longer than/],
  ] as [PhotoCommand, RegExp][])('nonsense is refused with a sentence: %j', (command, sentence) => {
    expect(() => applyToPhoto(photo, command)).toThrow(CommandError);
    expect(() => applyToPhoto(photo, command)).toThrow(sentence);
  });
});

describe('set commands', () => {
  const set: PhotoSet = {
    id: 1,
    siteId: 1,
    version: 3,
    name: 'Diary',
    slots: ['grid'],
    arranged: true,
    rehearsed: false,
    handedOver: false,
    archived: false,
    page: null,
  };
  test.each([{ name: 'Shop' }, { slots: ['hero'] }, { archived: true, arranged: false }])(
    '%j is taken back',
    (change) => {
      const applied = applyToSet(set, { kind: 'set', change });
      const changed = { ...set, ...applied.change };
      expect(changed).not.toEqual(set);
      expect({ ...changed, ...applyToSet(changed, applied.inverse).change }).toEqual(set);
    },
  );
  test.each([[{ slots: ['grid', 'grid'] }], [{ name: '  ' }]])('%j is refused', (change) => {
    expect(() => applyToSet(set, { kind: 'set', change })).toThrow(CommandError);
  });
});

describe('site commands', () => {
  const site: Site = {
    id: 1,
    version: 1,
    name: 'Gullmoor Pottery',
    address: '',
    everywhere: [],
    terms: [],
    archived: false,
    policy: DEFAULT_POLICY,
    languages: ['en'],
    devices: [...CONTEXT.devices],
    slots: [...CONTEXT.slots],
  };
  const wider = { ...slotById('grid'), name: 'Wide grid', budget: 30_000 };
  test.each([
    { kind: 'site', change: { name: 'Shop', languages: ['en', 'de', 'pt-BR', 'zh-Hans-TW'] } },
    { kind: 'site', change: { policy: { ...DEFAULT_POLICY, modern: 'webp' } } },
    { kind: 'slot', slot: 'grid', value: wider },
    { kind: 'slot', slot: 'strip', value: { ...wider, id: 'strip' } },
  ] as SiteCommand[])('%j is taken back', (command) => {
    const { site: changed, inverse } = applyToSite(site, command);
    expect(changed).not.toEqual(site);
    expect(applyToSite(changed, inverse).site).toEqual(site);
  });
  test.each([
    { kind: 'site', change: { languages: [] } },
    ...[
      ['de', 'DE'],
      ['en', 'en'],
      ['en', 'photos'],
      ['en', 'german'],
      ['en', 'PT-br'],
      ['en', 'x_y'],
    ].map((languages) => ({ kind: 'site', change: { languages } })),
    { kind: 'site', change: { devices: [] } },
    { kind: 'slot', slot: 'strip', value: wider },
    { kind: 'slot', slot: 'grid', value: { ...wider, shapes: [] } },
  ] as SiteCommand[])('%j is refused', (command) => {
    expect(() => applyToSite(site, command)).toThrow(CommandError);
  });
});
