import type { CompiledPart } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { clampedAt } from '../../diagnosis/partsAcross';
import { workingPatterns } from '../../diagnosis/patterns';
import { kindOf } from '../../kinds/part';
import { bearingOf, type Bearing } from './bearing';
import { loadedPattern } from './loadedPattern';
import {
  areWired,
  asksFor,
  cellOf,
  isBare,
  sizeOf,
  firstOpen,
  nameOf,
  pickBetween,
  pickOf,
  underCommand,
  volts,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';
import type { SheetVerdicts } from './verdicts';

/** Links of an output on its way to its load, in their order: what it leaves while nobody commands it, then commanded. */
export const CHAIN_LINKS = ['uncommanded', 'commandBit', 'atOutput', 'atLoad', 'throughLoad'] as const;

/** Of what the sound machine shows this share has arrived; of its supply less than the other is none. */
const ARRIVES_SHARE = 0.85;
const NONE_SHARE = 0.1;
/** And with more amperes than this share something in it or across it is shorted. */
const TOO_MUCH_SHARE = 1.5;

/** Each output of a controller link by link: off, volts at its terminal, volts across its load, amps through it. */
export function proofChainSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
): JobSheet<'proofChain'> | null {
  const rows: SheetRow<'proofChain'>[] = [];
  const bearing: Bearing[] = [];
  for (const output of model.compiled.parts) {
    if (output.part.kind !== 'driver') continue;
    const run = runOf(model, output);
    const cells = run && linksOf(model, output, run, readings);
    if (!cells) continue;
    if (run.load) bearing.push(...bearingOf(model, output, run.load, run.setup));
    rows.push({ name: output.part.ref, cells, verdict: lostAt(model, output, cells) });
  }
  if (rows.length === 0) return null;
  // A controller whose page shows no bits has no column for them.
  const shown = CHAIN_LINKS.map((_link, c) => rows.some(({ cells }) => cells[c] !== null));
  const narrow = rows.map((row) => ({ ...row, cells: row.cells.filter((_cell, c) => shown[c]) }));
  const open = narrow.map((row) =>
    // What is lost is found: the links behind it say nothing more.
    row.verdict === null || row.verdict === 'silent' ? row : { ...row, cells: row.cells.map(() => null) },
  );
  const columns = CHAIN_LINKS.filter((_link, c) => shown[c]);
  return { name: 'proofChain', columns, rows: narrow, next: firstOpen(open), answers: [], bearing };
}

/** The command that loads an output most, and what hangs on it alone then; null where no command sends anything through it. */
function runOf(
  model: CircuitModel,
  output: CompiledPart,
): { setup: Setup; load: CompiledPart | null } | null {
  const patterns = workingPatterns(model);
  const loaded = loadedPattern(model, patterns, output.branches[0]!.index);
  if (!loaded) return null;
  const { loads } = patterns.find(({ setup }) => setup === loaded.setup)!;
  return { setup: loaded.setup, load: loadOf(model, output, loads) };
}

/** The links of an output. */
function linksOf(
  model: CircuitModel,
  output: CompiledPart,
  { setup, load }: { setup: Setup; load: CompiledPart | null },
  readings: readonly Reading[],
): (SheetCell | null)[] | null {
  if (output.part.kind !== 'driver') return null;
  const { out } = output.part.nodes;
  const commanded = underCommand(setup);
  const plain = (test: Test) => commanded(test) && isBare(test);
  const frame = nameOf(model, model.compiled.frame);
  const cell = (test: Test | null) => cellOf(model, test, readings);
  const low = output.part.side === 'low';
  const ends = load && ([nameOf(model, load.branches[0]!.a), nameOf(model, load.branches[0]!.b)] as const);
  return [
    cell(
      pickBetween(
        model,
        'volts',
        [out, frame],
        (test, expected) =>
          isBare(test) && !commanded(test) && (low ? sizeOf(expected) > 1 : sizeOf(expected) < 1),
      ),
    ),
    cell(pickOf(model, 'bit', output.part.ref, asksFor(plain))),
    cell(
      pickBetween(
        model,
        'volts',
        [out, frame],
        (test, expected) => plain(test) && (low || sizeOf(expected) > 1),
      ),
    ),
    ends
      ? cell(pickBetween(model, 'volts', ends, (test, expected) => plain(test) && sizeOf(expected) > 1))
      : null,
    load
      ? cell(
          pickOf(
            model,
            'amps',
            clampedAt(model, load) ?? load.part.ref,
            (test, expected) => plain(test) && sizeOf(expected) > 0,
          ),
        )
      : null,
  ];
}

/** The load that hangs on an output alone: fed with it, and one of its ends on its wire. */
function loadOf(model: CircuitModel, output: CompiledPart, loads: readonly string[]): CompiledPart | null {
  const { compiled } = model;
  if (output.part.kind !== 'driver') return null;
  const out = compiled.nodeIndex.get(output.part.nodes.out)!;
  return (
    compiled.parts.find(
      ({ part, branches }) =>
        loads.includes(part.ref) &&
        kindOf(part).traits.draws &&
        [branches[0]!.a, branches[0]!.b].some((node) => areWired(model, out, node)),
    ) ?? null
  );
}

/** The first link that does not give what the sound machine gives there; `good` once all that can be read do. */
function lostAt(
  model: CircuitModel,
  output: CompiledPart,
  cells: readonly (SheetCell | null)[],
): SheetVerdicts['proofChain'] | null {
  if (output.part.kind !== 'driver') return null;
  const supply = Math.max(model.compiled.volts[model.compiled.nodeIndex.get(output.part.nodes.out)!]!, 1);
  const low = output.part.side === 'low';
  const [off, , at, load, amps] = cells.map((cell) => volts(cell));
  const arrives = (cell: SheetCell | null | undefined, value: number) =>
    value >= ARRIVES_SHARE * sizeOf(cell!.expected);
  const gets = (link: 3 | 4) => {
    const value = link === 3 ? load : amps;
    return value === undefined ? null : arrives(cells[link], value);
  };
  if (off !== undefined && !low && off > NONE_SHARE * supply)
    return off >= ARRIVES_SHARE * supply ? 'on' : 'leaks';
  if (off !== undefined && low && off < NONE_SHARE * supply) return silentAtRest(gets(3), gets(4));
  if (off !== undefined && low && !arrives(cells[0], off)) return 'leaks';
  if (cells[1]?.value === '0') return 'program';
  if (at !== undefined && (low ? at > supply - ARRIVES_SHARE * supply : !arrives(cells[2], at)))
    return 'output';
  if (load !== undefined && !arrives(cells[3], load)) return at === undefined ? null : 'way';
  if (amps !== undefined && !arrives(cells[4], amps)) return load === undefined ? null : 'load';
  if (amps !== undefined && amps > TOO_MUCH_SHARE * sizeOf(cells[4]!.expected)) return 'tooMuch';
  return cells.every((cell) => cell === null || cell.value !== null) ? 'good' : null;
}

/**
 * Why a low side has no volts at rest. What draws through it is whole and fed, so that it must be on; what gets no volts when it pulls is not fed,
 * or does not reach it; what gets them and draws nothing is open.
 */
function silentAtRest(getsVolts: boolean | null, draws: boolean | null): SheetVerdicts['proofChain'] {
  if (draws === true) return 'on';
  if (getsVolts === false) return 'unfed';
  return getsVolts === true && draws === false ? 'load' : 'silent';
}
