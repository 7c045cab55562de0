// A dialog over the desk, on Radix: title, body, and a way out.
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

interface Props {
  open: boolean;
  onClose: () => void;
  title: string;
  about?: string;
  children: ReactNode;
  wide?: boolean;
}

export function Sheet({ open, onClose, title, about, children, wide = false }: Props) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-black/45" />
        <Dialog.Content
          {...(about === undefined && { 'aria-describedby': undefined })}
          className={`fixed left-1/2 top-[12vh] z-30 flex max-h-[76vh] w-[calc(100vw-32px)] -translate-x-1/2 flex-col rounded-paper border border-edge bg-sheet ${wide ? 'max-w-[760px]' : 'max-w-[520px]'}`}
        >
          <div className="flex items-start gap-3 border-b border-rule px-4 py-3">
            <div>
              <Dialog.Title className="text-[17px] font-[620] leading-tight">{title}</Dialog.Title>
              {about && <Dialog.Description className="mt-1 text-ink-2">{about}</Dialog.Description>}
            </div>
            <Dialog.Close className="chip ml-auto" aria-label="Close">
              <X size={14} aria-hidden="true" /> Close
            </Dialog.Close>
          </div>
          <div className="min-h-0 overflow-auto p-4">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
