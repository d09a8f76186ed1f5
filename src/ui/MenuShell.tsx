'use client';

import { DropdownMenu } from 'radix-ui';
import type { MenuPieces } from './LazyMenu';
import * as parts from './menuParts';

/** The menu itself, which comes open: it was asked for. */
export function MenuShell({ trigger, onOpen, children }: MenuPieces) {
  return (
    <DropdownMenu.Root defaultOpen onOpenChange={(open) => open && onOpen?.()}>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>{children(parts)}</DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
