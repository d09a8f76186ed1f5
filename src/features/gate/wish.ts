import 'server-only';
import { AsyncLocalStorage } from 'node:async_hooks';
import { ofProcess } from '@/db/shed';

/** What a page wishes of the server, as the process in front follows it; see `scripts/lib/application.mjs`. */
const wishes = ofProcess('wishes', () => new AsyncLocalStorage<{ isRead: boolean }>());

/** What was sent could be read, and is judged from here on: what fails now is the server's. */
export function wishRead(): void {
  const wish = wishes.getStore();
  if (wish) wish.isRead = true;
}

/** Whether something was sent that stands for no wish, as far as it came. */
export function isUnreadWish(): boolean {
  return wishes.getStore()?.isRead === false;
}
