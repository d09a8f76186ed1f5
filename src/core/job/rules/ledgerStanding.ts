import { InputError } from '../../circuit/inputError';
import type { CircuitModel } from '../../circuit/model';
import type { Reading, Setup } from '../../circuit/schema';
import { bindTest, choiceKey, predict, predictedValue } from '../../diagnosis/predict';
import { samePerson } from '../../people/roles';
import { guardsDefeated } from '../../safety/guards';
import { reliefsCutOff } from '../../safety/relief';
import type { JobState, LedgerLine } from '../reduceJob';

/** How one line of the ledger stands: in, out by one person's word, or shown to be out. */
export type LedgerStanding =
  { state: 'in' } | { state: 'out' } | { state: 'shown'; by: { second: string } | { reading: string } };

/** Share of the difference between in and out that a value may stand off from what it reads when it is out. */
const NEAR = 0.3;
/** In and out have to differ by this share of the larger before a number tells them apart. */
const APART = 0.3;

/**
 * How a line stands. Nothing counts as gone because somebody says so: a reading that would differ were it still in shows
 * it, or a second person does.
 */
export function ledgerStanding(
  model: CircuitModel,
  line: LedgerLine,
  state: Pick<JobState, 'readings' | 'after'>,
): LedgerStanding {
  const { out, seen } = line;
  if (!out) return { state: 'in' };
  if (seen && !samePerson(seen.body.second, out.entry.person))
    return { state: 'shown', by: { second: seen.body.second } };
  const { puts } = line.entry.body;
  const reading = puts
    ? [...state.readings, ...state.after].find(
        ({ position, reading: one }) => position > out.position && showsOut(model, puts, one),
      )
    : undefined;
  return reading ? { state: 'shown', by: { reading: reading.entry.id } } : { state: 'out' };
}

/** Whether a reading would have been another on the sound circuit with this still in it. */
export function showsOut(model: CircuitModel, puts: Setup, reading: Reading): boolean {
  const away = valueOf(model, reading, reading.setup);
  const still = valueOf(model, reading, together(reading.setup, puts));
  const { value } = reading;
  if (away === null || still === null) return false;
  if (typeof away === 'number' && typeof still === 'number') {
    const apart = Math.abs(away - still);
    if (apart <= APART * Math.max(Math.abs(away), Math.abs(still))) return false;
    return typeof value === 'number' && Math.abs(value - away) <= NEAR * apart;
  }
  const [a, b] = [choiceKey(away), choiceKey(still)];
  return a !== b && choiceKey(value) === a;
}

/** Lines that are in, or of which nothing shows yet that they are out, with how they stand. */
export function stillToTakeOut(
  model: CircuitModel,
  state: JobState,
): { line: LedgerLine; standing: LedgerStanding; guards: string[] }[] {
  return state.ledger
    .map((line) => ({
      line,
      standing: ledgerStanding(model, line, state),
      guards: guardsOfLine(model, line),
    }))
    .filter(({ standing }) => standing.state !== 'shown');
}

/** Guards that a line takes out of action while it is in. */
export function guardsOfLine(model: CircuitModel, { entry }: LedgerLine): string[] {
  const { puts } = entry.body;
  return puts ? [...guardsDefeated(model, puts), ...reliefsCutOff(model, puts)] : [];
}

/** What a line leads past, and what that does to the machine, as the drawing says it; null where it leads past nothing of the kind. */
export function bypassOf(
  { compiled }: CircuitModel,
  { entry }: LedgerLine,
): { part: string; danger: string } | null {
  const ref = entry.body.bypasses;
  const at = ref === undefined ? undefined : compiled.partIndex.get(ref);
  const danger = at === undefined ? undefined : compiled.parts[at]!.part.bypassDanger;
  return ref !== undefined && danger !== undefined ? { part: ref, danger } : null;
}

/** Something left in the machine that takes a guard out of action, or leads past what keeps the machine from harm. */
export interface SafetyDefect {
  item: string;
  guards: string[];
  bypass: { part: string; danger: string } | null;
  found: boolean;
}

/** Guards that are out of action as the ledger stands, until it is shown that what defeats them is gone. */
export function safetyDefects(model: CircuitModel, state: JobState): SafetyDefect[] {
  return state.ledger.flatMap((line) => {
    const [guards, bypass] = [guardsOfLine(model, line), bypassOf(model, line)];
    if (guards.length === 0 && !bypass) return [];
    if (ledgerStanding(model, line, state).state === 'shown') return [];
    return [{ item: line.entry.body.item, guards, bypass, found: line.entry.body.found === true }];
  });
}

function valueOf(model: CircuitModel, reading: Reading, setup: Setup) {
  try {
    const { value: _typed, ...test } = reading;
    const bound = bindTest(model, { ...test, setup });
    return predictedValue(reading.kind, predict(bound, [])) as Reading['value'];
  } catch (error) {
    // With it in, this reading could not be taken at all, or the drawing has changed: it shows nothing.
    if (error instanceof InputError) return null;
    throw error;
  }
}

function together(setup: Setup, puts: Setup): Setup {
  const joined: Record<string, unknown> = { ...setup };
  for (const [key, more] of Object.entries(puts)) {
    const own = joined[key];
    joined[key] =
      Array.isArray(own) && Array.isArray(more) ? [...(own as unknown[]), ...(more as unknown[])] : more;
  }
  return joined as Setup;
}
