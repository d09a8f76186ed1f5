'use client';

import Link from 'next/link';
import { Check } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { THEME_COOKIE, THEME_NAMES, THEMES, themeOf, type Theme } from './theme';

const YEAR_SECONDS = 31_536_000;

/** The name, with the menu that holds the way to the Shed and the three themes. */
export function Brand() {
  const [theme, setTheme] = useState<Theme>('light');
  const choose = (next: string) => {
    const chosen = themeOf(next);
    document.documentElement.dataset.theme = chosen;
    document.cookie = `${THEME_COOKIE}=${chosen}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`;
    setTheme(chosen);
  };
  return (
    <DropdownMenu.Root onOpenChange={() => setTheme(themeOf(document.documentElement.dataset.theme))}>
      <DropdownMenu.Trigger
        className="flex h-14 items-center gap-3 pr-5 text-[18px] font-[750]"
        aria-label="Spiraxis: shed and themes"
      >
        <BrandMark />
        <span className="max-tablet:hidden">Spiraxis</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          className="z-50 min-w-56 border-2 border-ink bg-sheet py-1 text-ink"
          collisionPadding={12}
        >
          <DropdownMenu.Item asChild className="flex min-h-11 items-center px-4 data-highlighted:bg-pencil-t">
            <Link href="/">The shed</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item asChild className="flex min-h-11 items-center px-4 data-highlighted:bg-pencil-t">
            <Link href="/machines">Machines</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item asChild className="flex min-h-11 items-center px-4 data-highlighted:bg-pencil-t">
            <Link href="/codes">Codes and bus logs</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Item asChild className="flex min-h-11 items-center px-4 data-highlighted:bg-pencil-t">
            <Link href="/policy">Site policy</Link>
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          <DropdownMenu.RadioGroup value={theme} onValueChange={choose}>
            {THEMES.map((one) => (
              <DropdownMenu.RadioItem
                key={one}
                value={one}
                className="flex min-h-11 items-center gap-3 px-4 data-highlighted:bg-pencil-t"
              >
                <span className="w-5">
                  <DropdownMenu.ItemIndicator>
                    <Check size={18} aria-hidden />
                  </DropdownMenu.ItemIndicator>
                </span>
                {THEME_NAMES[one]}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function BrandMark() {
  return (
    <svg width="32" height="20" viewBox="0 0 32 20" aria-hidden>
      <path d="M0 10h32" stroke="var(--ink)" strokeWidth="2.4" />
      {[7, 12, 17, 22].map((x) => (
        <path key={x} d={`M${x} 17l3-14`} stroke="var(--copper)" strokeWidth="3.2" />
      ))}
    </svg>
  );
}
