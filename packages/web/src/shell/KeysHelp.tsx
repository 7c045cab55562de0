// The keys of the screens, so that none works only by memory.
import { useLocation } from 'react-router';
import { Sheet } from '../ui/Sheet.tsx';

interface Keys {
  where: string;
  /** True for the screens where they work: by the view's name, and whether one of its things is open. */
  on: (view: string, isBench: boolean) => boolean;
  keys: [string, string][];
}

/** Views of the path that show the table. */
const TABLES = ['gather', 'frame', 'weigh', 'describe', 'hand-over'];

const KEYS: Keys[] = [
  {
    where: 'Everywhere',
    on: () => true,
    keys: [
      ['/', 'find a photo or an action'],
      ['?', 'show these keys'],
      ['Ctrl Z', 'undo'],
      ['Ctrl Shift Z', 'redo'],
    ],
  },
  {
    where: 'On the worktable',
    on: (view, isBench) => TABLES.includes(view) && !isBench,
    keys: [
      ['↑ ↓', 'go from photo to photo'],
      ['Shift ↑ ↓', 'select on the way'],
      ['Space', 'select or let go'],
      ['Ctrl A', 'select all that are shown'],
      ['Esc', 'let go of the selection'],
      ['Enter', 'open the photo at its bench'],
      ['W', 'go to the next photo without words and write'],
      ['Delete', 'put the selected photos into the bin'],
    ],
  },
  {
    where: 'At Arrange, on a photo',
    on: (view, isBench) => view === 'arrange' && !isBench,
    keys: [
      ['← →', 'go along the place'],
      ['↑ ↓', 'go to the place above or below'],
      ['Shift ← →', 'move what is picked along the place'],
      ['Shift ↑ ↓', 'carry it over to the place above or below'],
      ['Space', 'pick or let go'],
      ['Ctrl A', 'pick all of the place'],
      ['Delete', 'take it out of the place'],
      ['Enter', 'open it in its arrangement, or at the frame bench'],
    ],
  },
  {
    where: 'At the describe bench, in a field',
    on: (view, isBench) => view === 'describe' && isBench,
    keys: [
      [
        'Enter',
        'save, and go on: to an address or long description that is still due, then to the next photo without words',
      ],
      ['Ctrl Enter', 'the same from a long description'],
      ['Shift Enter', 'a new line'],
      ['Alt ↓ ↑', 'next or previous photo'],
      ['Esc', 'leave the field'],
    ],
  },
  {
    where: 'At the describe bench, outside a field',
    on: (view, isBench) => view === 'describe' && isBench,
    keys: [
      ['1 to 5', 'say what the photo is here for'],
      ['E', 'go on writing'],
      ['W', 'next photo without words'],
      ['J K', 'next or previous photo'],
      ['Esc', 'back to the table'],
    ],
  },
  {
    where: 'At the frame bench',
    on: (view, isBench) => view === 'frame' && isBench,
    keys: [
      ['Arrows', 'move the focal point by 1 %, the chosen crop by 1 px'],
      ['Shift arrows', 'move by 5 %, or by 10 px'],
      ['+ −', 'make the chosen crop larger or smaller'],
      ['C', 'confirm the focal point'],
      ['J K', 'next or previous photo'],
      ['Esc', 'let go of the line, or back to the table'],
    ],
  },
  {
    where: 'At the weigh bench',
    on: (view, isBench) => view === 'weigh' && isBench,
    keys: [
      ['O', 'see the original as long as it is held'],
      ['M', 'the map of what differs'],
      ['G', 'give back what was decided for this photo'],
      ['+ −', 'nearer or farther, on the picture'],
      ['J K', 'next or previous photo'],
      ['Esc', 'back to the table'],
    ],
  },
  {
    where: 'Here',
    on: (view, isBench) => ['page', 'texts', 'reading'].includes(view) || (view === 'arrange' && isBench),
    keys: [['Esc', 'back to where you came from']],
  },
];

/** The keys that work on a screen; those of others are not among them. */
export const keysOn = (view: string, isBench: boolean): Keys[] => KEYS.filter(({ on }) => on(view, isBench));

export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [, , , view = '', thing] = useLocation().pathname.split('/');
  return (
    <Sheet open={open} onClose={onClose} title="Keys" about="Those that work on this screen." wide>
      <div className="grid gap-6 sm:grid-cols-2">
        {keysOn(view, thing !== undefined).map(({ where, keys }) => (
          <section key={where}>
            <h2 className="mb-2 text-[14px] font-semibold">{where}</h2>
            <dl className="grid grid-cols-[auto_1fr] items-baseline gap-x-3 gap-y-1.5">
              {keys.map(([key, does]) => (
                <div key={key} className="contents">
                  <dt>
                    <kbd className="key">{key}</kbd>
                  </dt>
                  <dd className="text-ink-2">{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Sheet>
  );
}
