// What is said of many photos at once: what they are here for, texts by a pattern, finding and replacing.
import { useState } from 'react';
import { DropdownMenu } from 'radix-ui';
import { notifyFailure } from '../screen/screen.ts';
import { useSite } from '../server/hooks.ts';
import { ActionMenu } from '../ui/ActionMenu.tsx';
import { saveManyWords } from '../editing/edits.ts';
import { photosOf } from '../editing/photos.ts';
import { CompareSheet, soundingAlike } from './CompareSheet.tsx';
import { PatternSheet, ReplaceSheet } from './BulkSheets.tsx';
import { ROLES } from './roles.ts';

export function WordsMenu({ ids, setId }: { ids: readonly number[]; setId: number }) {
  const [sheet, setSheet] = useState<'pattern' | 'replace' | 'alike' | null>(null);
  const language = useSite()?.languages[0] ?? 'en';
  const close = () => setSheet(null);
  const items = ROLES.map(({ role, name, answer }) => ({
    name: `They all: ${name}`,
    hint: answer,
    act: () =>
      void photosOf(setId, ids).then(
        (photos) =>
          saveManyWords(
            `role of ${photos.length} photos`,
            photos.filter(({ words }) => words.role !== role).map(({ id }) => ({ id, words: { role } })),
          ),
        notifyFailure,
      ),
  }));
  return (
    <>
      <ActionMenu name="Words" disabled={ids.length === 0} actions={items}>
        <DropdownMenu.Separator className="my-1 border-t border-rule" />
        <DropdownMenu.Item className="menu-item" onSelect={() => setSheet('pattern')}>
          Fill in by a pattern…
        </DropdownMenu.Item>
        <DropdownMenu.Item className="menu-item" onSelect={() => setSheet('replace')}>
          Find and replace…
        </DropdownMenu.Item>
        <DropdownMenu.Item className="menu-item" onSelect={() => setSheet('alike')}>
          Tell those apart that sound alike…
        </DropdownMenu.Item>
      </ActionMenu>
      {sheet === 'pattern' && <PatternSheet ids={ids} setId={setId} onClose={close} />}
      {sheet === 'alike' && (
        <CompareSheet setId={setId} find={() => soundingAlike(setId, ids, language)} onClose={close} />
      )}
      {sheet === 'replace' && <ReplaceSheet ids={ids} setId={setId} onClose={close} />}
    </>
  );
}
