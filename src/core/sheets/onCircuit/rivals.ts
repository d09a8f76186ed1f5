import type { CompiledPart } from '../../circuit/compile';
import type { Edit } from '../../circuit/edits';
import type { CircuitModel } from '../../circuit/model';
import type { Reading, Test } from '../../circuit/schema';
import { bindTest, predict, predictedValue } from '../../diagnosis/predict';
import { restOf } from '../../trace/restOf';
import { cellOf, isBare, nameOf, pickBetween, sizeOf, underCommand, volts, type SheetCell } from './jobSheet';

export type ClickTest = Extract<Test, { kind: 'click' }>;

/** From this share of its supply on a coil that nobody commands is fed. */
const FED_SHARE = 0.5;
/** And up to this share the sound machine leaves it at rest. */
const REST_SHARE = 0.1;

/**
 * Relays that silence one: with such a rival's contacts closed the supply falls away as soon as it pulls in, and it drops out again before
 * anybody hears it. So do two directions of one motor.
 */
export function rivalsOf(model: CircuitModel, click: ClickTest): CompiledPart[] {
  const bound = bindTest(model, click);
  return model.compiled.parts.filter(({ part, branches }) => {
    if (part.kind !== 'relay' || part.ref === click.part) return false;
    const closed = branches
      .filter(({ role }) => role === 'made')
      .map(({ index }): Edit => ({ type: 'force', branch: index, on: true }));
    return closed.length > 0 && predictedValue('click', predict(bound, closed)) === false;
  });
}

/** What stands across a rival's coil while the silent one rests, its feed on: nothing, on the sound machine. Null where that may not be read. */
export function restCell(
  model: CircuitModel,
  { branches }: CompiledPart,
  { part, setup }: ClickTest,
  readings: readonly Reading[],
): SheetCell | null {
  const rest = restOf(model, part, setup);
  if (!rest) return null;
  const commanded = underCommand(rest);
  const { a, b, volts: supply } = branches[0]!;
  const test = pickBetween(
    model,
    'volts',
    [nameOf(model, a), nameOf(model, b)],
    (one, expected) =>
      isBare(one) && commanded(one) && typeof expected === 'number' && sizeOf(expected) < REST_SHARE * supply,
  );
  return cellOf(model, test, readings);
}

/** Whether a relay's coil was read fed while nobody commands it; null while it was not read. */
export function isFedAtRest({ branches }: CompiledPart, cell: SheetCell | null): boolean | null {
  const read = volts(cell);
  return read === undefined ? null : read >= FED_SHARE * branches[0]!.volts;
}
