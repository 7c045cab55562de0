// Files from the clipboard: copied in a file manager they have their names, a picture copied on a screen has none.
import { useEffect } from 'react';
import { isTyping } from '../ui/typing.ts';

/** What browsers call a picture that was copied on a screen. */
const NAMELESS = /^image\.(png|jpe?g|webp|gif)$/i;

/** Files as they are taken in; a picture without a name is called after the moment of pasting. */
export function pastedFiles(files: readonly File[], now: Date): File[] {
  const stamp = now.toISOString().slice(0, 19).replace('T', '-').replaceAll(':', '');
  return files.map((file, n) => {
    const ending = NAMELESS.exec(file.name)?.[1];
    if (ending === undefined) return file;
    const number = n > 0 ? `-${n + 1}` : '';
    return new File([file], `pasted-${stamp}${number}.${ending.toLowerCase()}`, { type: file.type });
  });
}

/** Takes files that are pasted anywhere but into a field. */
export function usePaste(take: (files: File[]) => void): void {
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length === 0 || isTyping(event.target)) return;
      event.preventDefault();
      take(pastedFiles(files, new Date()));
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  });
}
