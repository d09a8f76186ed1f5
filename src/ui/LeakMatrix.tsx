import { Check, X } from 'lucide-react';
import { TurnStrokes } from './Turns';

/** Ohms of insulation as a tester shows them. */
type Shown = number | 'OL';
type Verdict = 'good' | 'watch' | 'bad';

/** A pair as it was read today. */
export interface LeakCell {
  ohms: Shown | undefined;
  verdict: Verdict | null;
  chosen?: boolean;
  /** The pair is read by pressing it. */
  onChoose?: () => void;
}

/**
 * Every conductor by every other and the frame: below the diagonal today, above it the last proved set, so that a pair and its past
 * stand in mirror cells.
 */
export function LeakMatrix({
  places,
  today,
  before,
  shown,
  verdictWords,
}: {
  places: readonly string[];
  /** Of a row below the diagonal; null where nothing may be read. */
  today: (row: number, column: number) => LeakCell | null;
  before: (row: number, column: number) => Shown | undefined;
  shown: (ohms: Shown) => string;
  verdictWords: (verdict: Verdict | null) => string;
}) {
  const label = (row: number, column: number) => `${places[row]!} to ${places[column]!}`;
  return (
    <div className="max-h-[60vh] overflow-auto py-2">
      <table className="border-collapse" aria-label="Today below the diagonal, last proved above it">
        <thead>
          <tr>
            <th className="sticky top-0 left-0 z-20 bg-film" />
            {places.map((place) => (
              <th key={place} className="fig sticky top-0 z-10 h-8 min-w-[76px] bg-film text-[15px]">
                {place}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {places.map((place, r) => (
            <tr key={place}>
              <th className="fig sticky left-0 z-10 bg-film pr-2 text-left text-[15px]">{place}</th>
              {places.map((other, c) => {
                if (r === c) return <td key={other} className="border-[1.5px] border-rule bg-well" />;
                if (r < c) {
                  const ohms = before(r, c);
                  return (
                    <td
                      key={other}
                      className={`${CELL} bg-film text-ink2`}
                      aria-label={`${label(r, c)}, last proved: ${ohms === undefined ? 'not known' : shown(ohms)}`}
                    >
                      {ohms === undefined ? '' : shown(ohms)}
                    </td>
                  );
                }
                return (
                  <Today
                    key={other}
                    cell={today(r, c)}
                    label={label(r, c)}
                    shown={shown}
                    verdictWords={verdictWords}
                  />
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const CELL = 'h-[55px] w-[76px] border-[1.5px] border-rule text-center text-[14.5px] leading-[17px]';
const TONES: Readonly<Record<Verdict, string>> = {
  good: 'bg-sheet text-verdi',
  watch: 'bg-copper-t text-copper-ink',
  bad: 'bg-stamp text-sheet',
};

function Today({
  cell,
  label,
  shown,
  verdictWords,
}: {
  cell: LeakCell | null;
  label: string;
  shown: (ohms: Shown) => string;
  verdictWords: (verdict: Verdict | null) => string;
}) {
  if (!cell)
    return (
      <td className={`${CELL} bg-well text-ink2`} aria-label={`${label}: nothing may be read here`}>
        –
      </td>
    );
  const { ohms, verdict, chosen = false, onChoose } = cell;
  const said = `${label}: ${ohms === undefined ? 'not read' : `${shown(ohms)}, ${verdictWords(verdict)}`}`;
  const ground = verdict ? TONES[verdict] : 'bg-sheet text-ink2';
  if (!onChoose)
    return (
      <td className={`${CELL} ${ground}`} aria-label={said}>
        <Read ohms={ohms} verdict={verdict} shown={shown} />
      </td>
    );
  return (
    <td className={`${CELL} p-0 ${ground}`}>
      <button
        type="button"
        aria-label={said}
        aria-pressed={chosen}
        data-read={ohms !== undefined}
        onClick={onChoose}
        className={`h-[54px] w-full ${chosen ? 'border-[3px] border-pencil' : ''}`}
      >
        <Read ohms={ohms} verdict={verdict} shown={shown} />
      </button>
    </td>
  );
}

function Read({
  ohms,
  verdict,
  shown,
}: Pick<LeakCell, 'ohms' | 'verdict'> & { shown: (ohms: Shown) => string }) {
  if (ohms === undefined)
    return <span aria-hidden className="inline-block size-2.5 rounded-full border-[1.5px] border-edge" />;
  return (
    <>
      <span aria-hidden className="flex justify-center">
        {verdict === 'good' ? <Check size={18} strokeWidth={3} /> : null}
        {verdict === 'bad' ? <X size={18} strokeWidth={3} /> : null}
        {verdict === 'watch' ? (
          <svg width="24" height="18" viewBox="0 0 24 18">
            <TurnStrokes count={2} x={12} y={9} height={14} room={12} />
          </svg>
        ) : null}
      </span>
      <span className="fig">{shown(ohms)}</span>
    </>
  );
}
