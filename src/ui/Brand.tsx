'use client';

import { Link } from '@/ui/Link';
import { useState } from 'react';
import { LazyMenu } from './LazyMenu';
import { useReady } from './useReady';
import { useMay, WhoKey } from './who';
import { THEME_COOKIE, THEME_NAMES, themeOf, type Theme } from './theme';

const YEAR_SECONDS = 31_536_000;
const PLACES = [
  ['/', 'The shed'],
  ['/machines', 'Machines'],
  ['/parts', 'Parts'],
  ['/drift', 'Drift'],
  ['/day', 'The day'],
  ['/retests', 'Re-tests'],
  ['/record', 'What usually breaks'],
  ['/month', 'The month'],
  ['/codes', 'Codes and bus logs'],
  ['/policy', 'Site policy'],
  ['/people', 'People'],
] as const;

/** The name, with the menu that holds the way to the Shed and the three themes. */
export function Brand() {
  const [theme, setTheme] = useState<Theme>('light');
  const choose = (chosen: Theme) => {
    document.documentElement.dataset.theme = chosen;
    document.cookie = `${THEME_COOKIE}=${chosen}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`;
    setTheme(chosen);
  };
  const ready = useReady();
  const leads = useMay('people');
  const places = PLACES.filter(([href]) => href !== '/people' || leads);
  return (
    <>
      <LazyMenu
        onOpen={() => setTheme(themeOf(document.documentElement.dataset.theme))}
        trigger={
          <button
            type="button"
            className="flex h-14 items-center gap-3 pr-5 text-[18px] font-[750]"
            aria-label="Spiraxis: shed and themes"
            data-ready={ready}
          >
            <BrandMark />
            <span className="max-tablet:hidden">Spiraxis</span>
          </button>
        }
      >
        {({ Panel, Item, Line, Choices }) => (
          <Panel className="min-w-56">
            {places.map(([href, name]) => (
              <Item key={href} asChild>
                <Link href={href}>{name}</Link>
              </Item>
            ))}
            <Line />
            <Choices value={theme} names={THEME_NAMES} onChoose={choose} />
          </Panel>
        )}
      </LazyMenu>
      <WhoKey />
    </>
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
