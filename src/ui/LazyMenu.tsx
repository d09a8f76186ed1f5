'use client';

import { cloneElement, useState, type ComponentType, type ReactElement, type ReactNode } from 'react';
import type * as menuParts from './menuParts';

export interface MenuPieces {
  /** What opens it; it stays the same element whether the menu has come yet or not. */
  trigger: ReactElement;
  onOpen?: () => void;
  children: (menu: typeof menuParts) => ReactNode;
}

type Menu = ComponentType<MenuPieces>;
let loaded: Menu | null = null;
const load = () => import('./MenuShell').then((one) => (loaded = one.MenuShell));

/**
 * A menu whose library travels to the browser when somebody reaches for it: pages on the way to a tablet in the cold stay
 * small. The trigger is there at once; pressed before the rest has come, the menu opens when it has.
 */
export function LazyMenu(props: MenuPieces) {
  const [Shell, setShell] = useState<Menu | null>(null);
  const [away, setAway] = useState(false);
  if (Shell) return <Shell {...props} />;
  const show = (menu: Menu) => {
    props.onOpen?.();
    setShell(() => menu);
  };
  const open = () => {
    if (loaded) show(loaded);
    else load().then(show, () => setAway(true));
  };
  const reach = () => {
    // A server that is away is told when it is pressed, not when it is passed over.
    if (!loaded) load().catch(() => undefined);
  };
  return (
    <>
      {cloneElement(props.trigger as ReactElement<React.ComponentProps<'button'>>, {
        'aria-haspopup': 'menu',
        'aria-expanded': false,
        onPointerEnter: reach,
        onFocus: reach,
        onClick: open,
        onKeyDown: (event) => {
          if (event.key !== 'ArrowDown') return;
          event.preventDefault();
          open();
        },
      })}
      {away ? (
        <span role="alert" className="self-center px-2 text-[15px]">
          Not on this device yet, and the server is away.
        </span>
      ) : null}
    </>
  );
}
