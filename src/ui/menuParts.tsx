'use client';

import { Check } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

const ITEM = 'flex min-h-11 items-center px-4 data-highlighted:bg-pencil-t';

export function Panel({
  className = 'min-w-52',
  align = 'start',
  children,
}: {
  className?: string;
  align?: 'start' | 'end';
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Content
      align={align}
      collisionPadding={12}
      className={`z-50 border-2 border-ink bg-sheet py-1 text-ink ${className}`}
    >
      {children}
    </DropdownMenu.Content>
  );
}

export function Item({
  className = '',
  ...props
}: { className?: string } & Pick<DropdownMenu.DropdownMenuItemProps, 'onSelect' | 'asChild' | 'children'>) {
  return <DropdownMenu.Item className={`${ITEM} ${className}`} {...props} />;
}

export function Label({ children }: { children: ReactNode }) {
  return (
    <DropdownMenu.Label className="border-b border-rule bg-well px-4 py-1.5 text-[15px] text-ink2">
      {children}
    </DropdownMenu.Label>
  );
}

export function Line() {
  return <DropdownMenu.Separator className="my-1 h-px bg-rule" />;
}

/** One of several, with a tick at the one that holds. */
export function Choices<T extends string>({
  value,
  names,
  onChoose,
}: {
  value: T;
  names: Readonly<Record<T, string>>;
  onChoose: (value: T) => void;
}) {
  return (
    <DropdownMenu.RadioGroup value={value} onValueChange={(next) => onChoose(next as T)}>
      {(Object.keys(names) as T[]).map((one) => (
        <DropdownMenu.RadioItem key={one} value={one} className={`${ITEM} gap-3`}>
          <span className="w-5">
            <DropdownMenu.ItemIndicator>
              <Check size={18} aria-hidden />
            </DropdownMenu.ItemIndicator>
          </span>
          {names[one]}
        </DropdownMenu.RadioItem>
      ))}
    </DropdownMenu.RadioGroup>
  );
}
