/** How a meter at a plug of this device talks. */
export const SPEECHES = ['lines', 'scpi'] as const;
export type Speech = (typeof SPEECHES)[number];
export const BAUD_RATES = [1200, 2400, 9600, 19_200, 57_600, 115_200] as const;

/** Where the figures come from: typed, the shop's meter at the server, or a meter at a plug of this device. */
export type LiveSource =
  { from: 'typed' } | { from: 'shop' } | { from: 'plug'; speech: Speech; baudRate: number };

export const TYPED: LiveSource = { from: 'typed' };
const KEY = 'spiraxis-live-meter';

/** The source kept on this device, or typing where nothing sound is kept. */
export function keptSource(): LiveSource {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Partial<
      Extract<LiveSource, { from: 'plug' }>
    > | null;
    const from: unknown = kept?.from;
    if (from === 'shop') return { from };
    const { speech, baudRate } = kept ?? {};
    if (
      from === 'plug' &&
      SPEECHES.some((one) => one === speech) &&
      BAUD_RATES.some((one) => one === baudRate)
    )
      return { from, speech: speech!, baudRate: baudRate! };
    return TYPED;
  } catch {
    // Damaged or refused storage holds no source.
    return TYPED;
  }
}

/** Keeps it for the next visit; where storage is refused it holds for this one. */
export function keepSource(source: LiveSource): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(source));
  } catch {
    // Said by the strip at the foot of every page.
  }
}
