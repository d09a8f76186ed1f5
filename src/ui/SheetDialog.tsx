'use client';

import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

/** A sheet laid over the page until it is closed. */
export function SheetDialog({
  open,
  onOpenChange,
  title,
  children,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-film/70" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-50 max-h-[calc(100dvh-24px)] w-[540px] max-w-[calc(100vw-24px)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border-2 border-ink bg-sheet text-ink"
        >
          <div className="sticky top-0 flex items-center justify-between border-b-2 border-ink bg-sheet pl-5">
            <Dialog.Title className="text-[19px] font-[780]">{title}</Dialog.Title>
            <Dialog.Close className="flex size-12 items-center justify-center" aria-label="Close">
              <X size={22} aria-hidden />
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
