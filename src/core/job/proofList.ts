import { kindOf } from '../kinds/part';
import type { CircuitModel } from '../circuit/model';
import type { Circumstance } from '../circuit/circumstances';
import type { Reading, Setup, Test } from '../circuit/schema';
import { canBeAsked } from '../diagnosis/predict';
import { proofsOfGuards, switchPoint } from './proofsOfGuards';
import { valueOf } from './soundReading';
import { isDeadKind } from '../circuit/testPlace';
import { testKey } from '../diagnosis/observations';
import { workingPatterns } from '../diagnosis/patterns';
import { CARES_SHOWN, REFRIGERANT_CARES, type RefrigerantCare } from '../safety/refrigerant';
import type { JobState } from './reduceJob';
import { isSeenWorking, tellsNoMore } from './seenWork';
import { ofTheFault, PRESSURE_SHARE } from './proofsOfFault';
import { clampsOf, runsOf } from '../diagnosis/feedAndReturn';
import { mostLost } from '../diagnosis/lostVolts';
import { guardsOfLine, ledgerStanding, type LedgerStanding } from './rules/ledgerStanding';
import { compareWires } from './restoreCheck';
import { locksOff } from './rules/locksOff';
import { workedOn } from './workedOn';

/** One thing to be shown before a machine goes back to work. */
export type Proof = { id: string } & (
  | { kind: 'works'; test: Test; part: string; setup: Setup }
  /** It works under what made it fail: shaken, wet, hot. */
  | { kind: 'asComplained'; test: Test; part: string; when: Circumstance }
  | { kind: 'current'; test: Extract<Test, { kind: 'amps' }>; part: string; expected: number }
  /** What drives an actuator, at its port, kPa: as high as the sound machine has it there, within its regulator's spread. */
  | {
      kind: 'pressure';
      test: Extract<Test, { kind: 'pressure' }>;
      part: string;
      expected: number;
      within: number;
    }
  /** Insulation of what was mended, on the dead circuit, over the limit of its class. */
  | { kind: 'insulation'; test: Extract<Test, { kind: 'insulation' }>; least: number }
  /** A part of the air, oil or vacuum side that was opened holds its pressure. */
  | { kind: 'tight'; part: string }
  /** What the change of a part that holds refrigerant asks for. */
  | { kind: 'care'; part: string; care: RefrigerantCare }
  /** A fuse that the fault took down holds so long under its load. */
  | { kind: 'fuseHolds'; test: Extract<Test, { kind: 'fuse' }>; minutes: number }
  | {
      kind: 'drop';
      test: Extract<Test, { kind: 'volts' }>;
      side: 'feed' | 'return';
      part: string;
      most: number;
      expected: number;
    }
  | {
      kind: 'signal';
      test: Extract<Test, { kind: 'volts' }>;
      part: string;
      control: string;
      position: string;
      expected: number;
      within: number;
    }
  /** `guards`: contacts on this control that protect somebody or something, or of which nobody has said what they protect. */
  | {
      kind: 'interlock';
      test: Test;
      part: string;
      control: string;
      position: string;
      setup: Setup;
      guards: string[];
    }
  /** What a guarding pressure switch lets work stops with the supply shut: a switch that hangs closed guards nobody. */
  | { kind: 'withoutPressure'; test: Test; part: string; supply: string; setup: Setup; guards: string[] }
  /** A guarding pressure switch that was changed, on a hand pump: where it changes over, kPa. */
  | {
      kind: 'changesOver';
      test: Extract<Test, { kind: 'changes' }>;
      part: string;
      /** Null where nobody has said what its label says: that it changes over is shown, and read. */
      expected: number | null;
      within: number;
      guards: string[];
    }
  /** A place that is followed over the years, read again as it was read before; what it reads stops nothing. */
  | { kind: 'followed'; test: Test; dead: boolean }
  | { kind: 'code'; code: string }
  | { kind: 'wire'; part: string; terminal: string }
  /** Something that was put in, or found in, and has to be shown to be out; the guards that it takes out of action. */
  | { kind: 'ledger'; item: string; lifted: boolean; standing: LedgerStanding; guards: string[] }
  | { kind: 'isolation'; point: string }
);

/** A sensor's signal may stand this share of its supply off. */
const SIGNAL_SHARE = 0.06;

/** What is read on the dead circuit comes before the locks are off, whatever it is for. */
function stageOf(proof: Proof): number {
  return proof.kind === 'followed' && proof.dead ? STAGE.insulation : STAGE[proof.kind];
}

/** In which order things are shown: on the dead work first, then all back and open, then running. */
const STAGE: Readonly<Record<Proof['kind'], number>> = {
  insulation: 0,
  changesOver: 0,
  wire: 1,
  ledger: 2,
  isolation: 3,
  care: 3,
  tight: 4,
  fuseHolds: 4,
  works: 5,
  pressure: 5,
  current: 5,
  drop: 5,
  followed: 5,
  asComplained: 6,
  signal: 6,
  interlock: 7,
  withoutPressure: 7,
  code: 8,
};

/**
 * What has to be proved after a fix, from the circuit and the job: every position works, current and drops where it
 * matters, every interlock stops what it must, codes gone, wires as found, nothing left in, nothing left locked.
 */
export function proofList(model: CircuitModel, state: JobState): Proof[] {
  const { compiled } = model;
  const { circuit } = compiled;
  const patterns = workingPatterns(model).filter(({ loads, driven }) => loads.length + driven.length > 0);
  const proofs: Proof[] = ofTheFault(model, state, patterns);
  const measured = new Set<string>();
  // Where a line or a cylinder was changed, no wire was: that everything moves shows the coils.
  const onFluidSide = isFluidOnly(model, state);
  for (const { setup, loads, driven } of patterns) {
    for (const ref of [...loads, ...driven]) {
      const part = circuit.parts.find((one) => one.ref === ref)!;
      if (part.kind === 'relay' || part.kind === 'resistor') continue;
      const works: Test = { kind: 'function', part: ref, setup };
      // What works and stays working has worked at once; what stays is shown where nothing else is commanded beside it.
      const shownElsewhere = patterns.some(
        (other) =>
          (other.setup.afterSeconds === undefined || setup.afterSeconds !== undefined) &&
          [...other.loads, ...other.driven].includes(ref) &&
          tellsNoMore(model, ref, setup, other.setup),
      );
      if (isSeenWorking(model, ref, driven.length > 0) && !shownElsewhere)
        proofs.push({ id: `works ${ref} ${words(setup)}`, kind: 'works', test: works, part: ref, setup });
      if (onFluidSide && driven.includes(ref))
        proofs.push(...drivingPressure(model, ref, setup).filter((one) => !isAsked(proofs, one)));
      if (onFluidSide || !kindOf(part).traits.load || measured.has(ref)) continue;
      measured.add(ref);
      const amps = { kind: 'amps', through: ref, setup } as const;
      proofs.push({
        id: `current ${ref}`,
        kind: 'current',
        test: amps,
        part: ref,
        expected: valueOf(model, amps),
      });
      for (const clamp of clampsOf(model, ref, setup)) {
        const test = { kind: 'amps', through: clamp, setup } as const;
        const id = `current ${clamp}`;
        if (!proofs.some((one) => one.id === id))
          proofs.push({ id, kind: 'current', test, part: clamp, expected: valueOf(model, test) });
      }
      for (const { side, from, to } of runsOf(model, ref, setup)) {
        const test = { kind: 'volts', from, to, setup } as const;
        const expected = valueOf(model, test);
        const most = mostLost(model, [from, to], expected);
        proofs.push({ id: `drop ${side} ${ref}`, kind: 'drop', test, side, part: ref, most, expected });
      }
    }
  }
  const guards = proofsOfGuards(model, patterns);
  proofs.push(...signals(model), ...guards, ...switchPoint(model, state, guards));
  proofs.push(...state.codes.map(({ key }): Proof => ({ id: `code ${key}`, kind: 'code', code: key })));
  proofs.push(
    ...compareWires(state).map(({ part, terminal }): Proof => ({
      id: `wire ${part} ${terminal}`,
      kind: 'wire',
      part,
      terminal,
    })),
  );
  proofs.push(
    ...state.ledger.map((line): Proof => ({
      id: `ledger ${line.entry.body.item}`,
      kind: 'ledger',
      item: line.entry.body.item,
      lifted: line.entry.body.kind === 'lifted',
      standing: ledgerStanding(model, line, state),
      guards: guardsOfLine(model, line),
    })),
  );
  proofs.push(
    ...[...locksOff(model, state).keys()].map((point): Proof => ({
      id: `isolation ${point}`,
      kind: 'isolation',
      point,
    })),
  );
  proofs.push(...followed(model, state, proofs));
  return proofs.sort((one, two) => stageOf(one) - stageOf(two));
}

/** Places that a re-test reads again, those that are shown anyway left out. */
function followed(model: CircuitModel, { retest }: JobState, others: readonly Proof[]): Proof[] {
  const shown = new Set(others.flatMap((proof) => ('test' in proof ? [testKey(proof.test)] : [])));
  // Counted as the re-test names them: a proof keeps its name as long as that entry stands.
  return (retest ?? []).flatMap((test, k): Proof[] =>
    shown.has(testKey(test)) || !canBeAsked(model, test)
      ? []
      : [{ id: `followed ${k + 1}`, kind: 'followed', test, dead: isDeadKind(test.kind) }],
  );
}

/** Whether the same reading is on the list already. */
function isAsked(proofs: readonly Proof[], proof: Proof): boolean {
  if (!('test' in proof)) return false;
  const key = testKey(proof.test);
  return proofs.some((one) => 'test' in one && one.kind === proof.kind && testKey(one.test) === key);
}

/** The port of an actuator that stands furthest from the air around while it is driven; none where the drawing gives no figure. */
function drivingPressure(model: CircuitModel, ref: string, setup: Setup): Proof[] {
  const { compiled } = model;
  const { nodes } = compiled.parts[compiled.partIndex.get(ref)!]!;
  const ports = nodes
    .filter((node) => compiled.domains[node] === 'fluid')
    .map((node) => {
      const test = { kind: 'pressure', at: compiled.nodeNames[node]!, setup } as const;
      return { test, expected: valueOf(model, test) };
    })
    .sort((a, b) => Math.abs(b.expected) - Math.abs(a.expected));
  const [most] = ports;
  if (!most || most.expected === 0) return [];
  const within = PRESSURE_SHARE * Math.abs(most.expected);
  return [{ id: `pressure ${ref} ${words(setup)}`, kind: 'pressure', part: ref, within, ...most }];
}

/** Every part that was worked on carries a fluid and no current, and no wire was touched. */
function isFluidOnly({ compiled }: CircuitModel, state: JobState): boolean {
  const { wires, ledger } = state;
  const worked = workedOn(state);
  const fluid = (node: number) => compiled.domains[node] === 'fluid';
  const wiresLifted = ledger.some(({ entry }) =>
    entry.body.puts?.lifted?.some(({ node }) => !fluid(compiled.nodeIndex.get(node) ?? -1)),
  );
  return (
    worked.length > 0 &&
    worked.every(({ part }) => {
      const drawn = compiled.parts[compiled.partIndex.get(part) ?? -1];
      return drawn?.nodes.every(fluid) && drawn.branches.every(({ domain }) => domain === 'fluid');
    }) &&
    wires.found.length === 0 &&
    !wiresLifted
  );
}

/** What a three-wire sensor says at each place it is turned to. */
function signals(model: CircuitModel): Proof[] {
  const { controls, parts } = model.compiled.circuit;
  return parts.flatMap((part) => {
    if (part.kind !== 'sensor3' || !part.control) return [];
    const { control, ref } = part;
    return (controls[control] ?? []).map((position): Proof => {
      const setup: Setup = { controls: { [control]: position } };
      const { signal, return: low, supply } = part.nodes;
      const test = { kind: 'volts', from: signal, to: low, setup } as const;
      const reference = Math.abs(valueOf(model, { ...test, from: supply }));
      const [expected, within] = [valueOf(model, test), SIGNAL_SHARE * reference];
      return {
        id: `signal ${ref} ${position}`,
        kind: 'signal',
        test,
        part: ref,
        control,
        position,
        expected,
        within,
      };
    });
  });
}

/** How a proof stands in the job's log: by a reading after the fix, by a tick, or with a reason. */
export type ProofStanding =
  | { state: 'open' }
  | { state: 'done'; found: string; reading?: Reading }
  | { state: 'wrong'; found: string; reading?: Reading }
  | { state: 'signedOff'; reason: string };

/**
 * Whether a line of the proof list may be left with a reason. What was put into the machine may not, and no guard goes out
 * untried: whether it stops what it must is shown, or the machine stays.
 */
export function mayBeLeft(proof: Proof): boolean {
  if (guardsShownBy(proof).length > 0) return false;
  if (proof.kind === 'care') return !CARES_SHOWN.includes(proof.care);
  return proof.kind !== 'ledger';
}

/** Guards that a line shows to do what they are there for. */
export function guardsShownBy(proof: Proof): string[] {
  return proof.kind === 'interlock' || proof.kind === 'withoutPressure' || proof.kind === 'changesOver'
    ? proof.guards
    : [];
}

/** Part and care that the name of such a line stands for; null where it is another line. */
export function careOf(id: string): { care: RefrigerantCare; part: string } | null {
  const [word, care, ...part] = id.split(' ');
  const found = REFRIGERANT_CARES.find((one) => one === care);
  return word === 'care' && found ? { care: found, part: part.join(' ') } : null;
}

/** How each proof stands. A ledger or isolation line stands done only by the log itself: shown out, opened again. */
export function proofStanding(proof: Proof, state: JobState): ProofStanding {
  const entry = state.proofs.get(proof.id);
  if (proof.kind === 'ledger') {
    // No reason leaves anything in: it comes out, and that is shown.
    if (proof.standing.state !== 'shown') return { state: 'open' };
    const { by } = proof.standing;
    const where = proof.lifted ? 'back on' : 'out';
    return {
      state: 'done',
      found: 'second' in by ? `${where}, seen by ${by.second}` : `${where}, by a reading`,
    };
  }
  if (entry?.body.reason && mayBeLeft(proof)) return { state: 'signedOff', reason: entry.body.reason };
  if (proof.kind === 'isolation') return { state: 'open' };
  if (proof.kind === 'code') {
    const code = state.codes.find(({ key }) => key === proof.code);
    return code && !code.present ? { state: 'done', found: 'gone after a cycle' } : { state: 'open' };
  }
  if (proof.kind === 'wire') {
    const wire = compareWires(state).find(
      (one) => one.part === proof.part && one.terminal === proof.terminal,
    );
    if (!wire || wire.state === 'missing') return { state: 'open' };
    return wire.state === 'same'
      ? { state: 'done', found: 'as found' }
      : { state: 'wrong', found: wire.differs.join(', ') };
  }
  if (proof.kind === 'care' && proof.care === 'dated') {
    const dated = state.fixes.findLast(({ body }) => body.part === proof.part)?.body.dated;
    return dated ? { state: 'done', found: dated } : { state: 'open' };
  }
  if (!entry) return { state: 'open' };
  // A tick alone shows nothing where a reading does: the reading that was taken after the fix does.
  if (entry.body.done && 'test' in proof && !isShown(proof, state)) return { state: 'open' };
  return entry.body.done
    ? { state: 'done', found: entry.body.found }
    : { state: 'wrong', found: entry.body.found };
}

/** Whether a reading after the last work shows what a proof asks for; the last one of that test counts. */
function isShown(proof: Extract<Proof, { test: Test }>, { after, lastFix }: JobState): boolean {
  const key = testKey(proof.test);
  const last = after.findLast(({ reading, position }) => position > lastFix && testKey(reading) === key);
  return last !== undefined && proves(proof, last.reading.value);
}

/** Whether a typed value proves what it should: near the expected current or signal, under the limit of a drop. */
export function proves(proof: Proof, value: Reading['value']): boolean {
  if (proof.kind === 'followed') return value === 'OL' || typeof value === 'number';
  if (proof.kind === 'works' || proof.kind === 'asComplained') return value === 'works';
  if (proof.kind === 'tight' || proof.kind === 'care') return value === 'none';
  if (proof.kind === 'interlock' || proof.kind === 'withoutPressure') return value === 'dead';
  if (proof.kind === 'fuseHolds') return value === 'holds';
  if (proof.kind === 'insulation')
    return value === 'OL' || (typeof value === 'number' && value >= proof.least);
  if (typeof value !== 'number') return false;
  if (proof.kind === 'current')
    return Math.abs(Math.abs(value) - Math.abs(proof.expected)) <= 0.2 * Math.abs(proof.expected);
  if (proof.kind === 'changesOver')
    return proof.expected === null || Math.abs(value - proof.expected) <= proof.within;
  if (proof.kind === 'signal' || proof.kind === 'pressure')
    return Math.abs(value - proof.expected) <= proof.within;
  return proof.kind === 'drop' && Math.abs(value) <= proof.most;
}

const words = ({ controls, afterSeconds }: Setup) =>
  [
    ...Object.entries(controls ?? {}).map((pair) => pair.join(' ')),
    ...(afterSeconds ? ['at once'] : []),
  ].join(', ');
