/** One sender a browser, where it can be told; where it cannot, two senders are harmless: an id is taken once. */
export async function aloneInBrowser(name: string, work: () => Promise<void>): Promise<void> {
  if (!('locks' in navigator)) return work();
  await navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
    if (lock) await work();
  });
}
