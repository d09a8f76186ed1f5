import type { EntryOf } from './entries';
import type { JobState } from './reduceJob';

/** A wire as it was found against how it was left. */
export interface WireCheck {
  part: string;
  terminal: string;
  found: EntryOf<'wire'>;
  left: EntryOf<'wire'> | null;
  state: 'same' | 'changed' | 'missing';
  /** What differs, in the map's own words: "mark 12, was 13". */
  differs: string[];
}

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/** Wire by wire: back on its own terminal or not. The latest entry for a terminal counts on both sides. */
export function compareWires({ wires }: Pick<JobState, 'wires'>): WireCheck[] {
  const keyOf = ({ body }: EntryOf<'wire'>) => `${body.part}|${body.terminal}|${body.mark}`.toLowerCase();
  const latest = (entries: readonly EntryOf<'wire'>[]) =>
    new Map(entries.map((entry) => [keyOf(entry), entry]));
  const left = latest(wires.left);
  return [...latest(wires.found).values()].map((found) => {
    const { part, terminal, mark, colour } = found.body;
    const back = left.get(keyOf(found)) ?? null;
    if (!back) {
      // Its mark may have turned up on another terminal, or another wire on this one.
      const stray = [...left.values()].find(
        ({ body }) =>
          body.part === part && mark !== '' && same(body.mark, mark) && !same(body.terminal, terminal),
      );
      const other = [...left.values()].find(
        ({ body }) => body.part === part && same(body.terminal, terminal),
      );
      const differs = [
        ...(stray ? [`wire ${mark} is on terminal ${stray.body.terminal}, was on ${terminal}`] : []),
        ...(other && !stray
          ? [
              `terminal ${terminal} has wire ${other.body.mark || 'without a mark'}, had ${mark || 'one without a mark'}`,
            ]
          : []),
      ];
      return {
        part,
        terminal,
        found,
        left: stray ?? other ?? null,
        state: differs.length > 0 ? 'changed' : 'missing',
        differs,
      };
    }
    const differs = [
      ...(same(back.body.colour, colour)
        ? []
        : [`colour ${back.body.colour || 'not noted'}, was ${colour || 'not noted'}`]),
      ...(same(back.body.to, found.body.to)
        ? []
        : [`goes to ${back.body.to || 'nowhere noted'}, went to ${found.body.to || 'nowhere noted'}`]),
    ];
    return { part, terminal, found, left: back, state: differs.length > 0 ? 'changed' : 'same', differs };
  });
}
