import { clampedAt } from '../../diagnosis/partsAcross';
import type { CompiledPart } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { branchAmps } from '../../circuit/world';
import { workingPatterns } from '../../diagnosis/patterns';
import { ownVolts } from '../../diagnosis/testerVolts';
import { areTwins } from '../../diagnosis/twins';
import { findLanes } from '../../path/lanes';
import { judgeCoil, type CoilSheet } from '../coil/coil';
import { judgeContacts } from '../contacts/contacts';
import { judgeInsulation } from '../insulation/insulation';
import { judgeInterlocks } from '../interlocks/interlocks';
import { judgeOutputs } from '../outputs/outputs';
import {
  cellOf,
  firstOpen,
  pickBetween,
  pickOf,
  testsOf,
  type JobSheet,
  type JobSheetName,
  type SheetCell,
  type SheetRow,
} from './jobSheet';

const HEAD = { format: 'spiraxis-sheet', version: 1 } as const;
/** A drop across a closed contact is no more than this share of its circuit, on the sound machine. */
const CLOSED_SHARE = 0.1;
const MOST_ROWS = 60;
/** A coil is read alone where the sound circuit shows its own ohms there, within this share. */
const ALONE_SHARE = 0.03;

const BUILD: { [N in JobSheetName]: (model: CircuitModel, readings: readonly Reading[]) => JobSheet | null } =
  {
    coil: coilSheetOf,
    contacts: contactsSheetOf,
    interlocks: interlocksSheetOf,
    insulation: insulationSheetOf,
    outputs: outputsSheetOf,
  };

/** A sheet filled in from the circuit and the readings of the job; null where the circuit has nothing to fill it with. */
export function jobSheet(
  model: CircuitModel,
  name: JobSheetName,
  readings: readonly Reading[],
): JobSheet | null {
  const sheet = BUILD[name](model, readings);
  return sheet && sheet.rows.some(({ cells }) => cells.some((cell) => cell !== null)) ? sheet : null;
}

function nameOf({ compiled }: CircuitModel, node: number): string {
  return compiled.nodeNames[node]!;
}

/** The sound circuit shows the winding's own ohms there: nothing lies across it. */
function isAlone(expected: Reading['value'], ohms: number): boolean {
  return typeof expected === 'number' && Math.abs(expected / ohms - 1) <= ALONE_SHARE;
}

function figure(cell: SheetCell | null | undefined): number | 'OL' | undefined {
  const value = cell?.value;
  return typeof value === 'number' ? Math.abs(value) : value === 'OL' ? 'OL' : undefined;
}

function volts(cell: SheetCell | null | undefined): number | undefined {
  const value = figure(cell);
  return value === 'OL' ? undefined : value;
}

/** Every winding by its ohms, its twins beside it. */
function coilSheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet {
  const { compiled } = model;
  const parts = compiled.parts.filter(({ part }) => part.kind === 'coil' || part.kind === 'relay');
  const cells = parts.map((coil) => {
    const body = coil.branches[0]!;
    const place = [nameOf(model, body.a), nameOf(model, body.b)] as const;
    const ohms = cellOf(
      model,
      pickBetween(model, 'ohms', place, (_test, expected) => isAlone(expected, body.ohms)),
      readings,
    );
    const amps = cellOf(
      model,
      pickOf(
        model,
        'amps',
        clampedAt(model, coil) ?? coil.part.ref,
        (_test, expected) => Number(expected) > 0,
      ),
      readings,
    );
    return { ohms, amps };
  });
  const rows = parts.map((own, at): SheetRow & { answer: ReturnType<typeof judgeCoil> } => {
    const { ohms, amps } = cells[at]!;
    const answer = judgeCoil(coilDocument(own, ohms, amps, twinsOf(parts, cells, at)));
    return {
      name: own.part.ref,
      cells: [ohms, amps],
      verdict: answer.verdict === 'unknown' ? null : answer.verdict,
      answer,
    };
  });
  return {
    name: 'coil',
    columns: ['ohms', 'amps'],
    rows: rows.map(({ answer: _answer, ...row }) => row),
    // Ohms decide; a current is read where the ohms leave something open.
    next: firstOpen(rows.map((row) => ({ ...row, cells: [row.cells[0]!] }))),
    answers: rows.map(({ answer }) => answer),
  };
}

function twinsOf(
  parts: readonly CompiledPart[],
  cells: readonly { ohms: SheetCell | null }[],
  at: number,
): number[] {
  return parts.flatMap((other, k) => {
    const value = figure(cells[k]!.ohms);
    return k !== at && areTwins(parts[at]!, other) && typeof value === 'number' && value > 0 ? [value] : [];
  });
}

function coilDocument(
  { part, branches }: CompiledPart,
  ohms: SheetCell | null,
  amps: SheetCell | null,
  twins: number[],
): CoilSheet {
  const read = figure(ohms);
  const figures = part as {
    ohms?: number;
    tolerance?: number;
    henries?: number;
    va?: number;
    sealedAmps?: number;
    inrushAmps?: number;
  };
  const body = branches[0]!;
  return {
    ...HEAD,
    sheet: 'coil',
    ohms: read === undefined ? [] : [read],
    // The job's readings have their leads off already.
    leadOhms: 0,
    temperatureC: undefined,
    maker: figures.ohms === undefined ? undefined : { ohms: figures.ohms, tolerance: figures.tolerance },
    twins,
    own: undefined,
    fleet: undefined,
    supplyVolts: body.volts > 0 ? body.volts : undefined,
    hz: body.reactance > 0 || !body.impedanceKnown ? 50 : 0,
    sealedAmps: figures.sealedAmps,
    inrushAmps: figures.inrushAmps,
    va: figures.va,
    henries: figures.henries,
    measuredAmps: volts(amps),
    driverLimitAmps: undefined,
    fuseAmps: undefined,
  };
}

/** Relays and contactors beside each other: click, coil, the contact both ways, and its drop under load. */
function contactsSheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet | null {
  const { compiled } = model;
  const patterns = workingPatterns(model);
  const found = compiled.parts.flatMap((own) => {
    const { part, branches } = own;
    if (part.kind !== 'relay') return [];
    const coil = branches[0]!;
    const click = cellOf(
      model,
      pickOf(model, 'click', part.ref, (_test, expected) => expected === true),
      readings,
    );
    const coilOhms = cellOf(
      model,
      pickBetween(model, 'ohms', [nameOf(model, coil.a), nameOf(model, coil.b)], (_test, expected) =>
        isAlone(expected, coil.ohms),
      ),
      readings,
    );
    return branches
      .filter(({ role }) => role === 'made')
      .map((contact) => {
        const place = [nameOf(model, contact.a), nameOf(model, contact.b)] as const;
        const held = (test: Test) => test.setup.energised?.includes(part.ref) ?? false;
        const closed = cellOf(
          model,
          pickBetween(model, 'ohms', place, (test) => held(test)),
          readings,
        );
        const open = cellOf(
          model,
          pickBetween(model, 'ohms', place, (test, expected) => !held(test) && expected === 'OL'),
          readings,
        );
        const loaded = loadedPattern(model, patterns, contact.index);
        const drop = loaded
          ? cellOf(model, dropTest(model, place, loaded.setup, contact.volts), readings)
          : null;
        return {
          name: `${part.ref} ${place[0]}–${place[1]}`,
          between: place,
          click,
          coilOhms,
          closed,
          open,
          drop,
          amps: loaded?.amps,
        };
      });
  });
  if (found.length === 0) return null;
  const answer = judgeContacts({
    ...HEAD,
    sheet: 'contacts',
    contactors: found.map(({ name, click, coilOhms, closed, open, drop, amps }) => ({
      name,
      clicks: typeof click?.value === 'boolean' ? click.value : undefined,
      coilOhms: figure(coilOhms),
      closedOhms: figure(closed),
      openOhms: figure(open),
      dropVolts: volts(drop),
      // What the sound machine carries through it: the drop is judged at its working current.
      atAmps: volts(drop) === undefined ? undefined : amps,
      ratedAmps: amps,
    })),
    leadOhms: 0,
    school: undefined,
    lineVolts: Math.max(...compiled.branches.map((branch) => branch.volts), 0) || undefined,
    directions: undefined,
  });
  const rows = found.map(({ name, between, click, coilOhms, closed, open, drop }) => ({
    name,
    between,
    cells: [click, coilOhms, open, closed, drop],
    verdict: answer.verdicts[name] ?? null,
  }));
  return {
    name: 'contacts',
    columns: ['click', 'coilOhms', 'openOhms', 'closedOhms', 'dropVolts'],
    rows,
    next: nextContact(rows),
    answers: [answer],
  };
}

/** The free look first, then the drop under load; ohms where no drop can be read. */
function nextContact(rows: readonly SheetRow[]): JobSheet['next'] {
  for (const column of [0, 4, 1, 3, 2]) {
    const row = rows.findIndex(
      ({ cells, verdict }) =>
        cells[column] && cells[column].value === null && (verdict === null || verdict === 'needsLoad'),
    );
    if (row >= 0) return [row, column];
  }
  return null;
}

function loadedPattern(
  model: CircuitModel,
  patterns: readonly { setup: Setup }[],
  branch: number,
): { setup: Setup; amps: number } | null {
  let best: { setup: Setup; amps: number } | null = null;
  for (const { setup } of patterns) {
    if (setup.afterSeconds !== undefined) continue;
    const amps = Math.abs(branchAmps(model.situation(setup).solve({ mode: 'live' }), branch));
    if (amps > 1e-3 && amps > (best?.amps ?? 0)) best = { setup, amps };
  }
  return best;
}

function dropTest(
  model: CircuitModel,
  place: readonly [string, string],
  setup: Setup,
  circuitVolts: number,
): Test | null {
  const wanted = JSON.stringify(setup.controls ?? {});
  return pickBetween(
    model,
    'volts',
    place,
    (test, expected) =>
      JSON.stringify(test.setup.controls ?? {}) === wanted &&
      typeof expected === 'number' &&
      Math.abs(expected) <= CLOSED_SHARE * Math.max(circuitVolts, 1),
  );
}

/** The longest chain of contacts ahead of one load: volts behind each, in the position that should feed it. */
function interlocksSheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet | null {
  const { compiled } = model;
  const frame = nameOf(model, compiled.frame);
  const chains = findLanes(model)
    .lanes.filter(({ medium }) => medium === 'electrical')
    .map((lane) => ({
      lane,
      contacts: lane.feed.filter(({ part }) => {
        const { kind } = compiled.parts[part]!.part;
        return kind === 'switch' || kind === 'pressureSwitch';
      }),
    }))
    .sort((a, b) => b.contacts.length - a.contacts.length);
  const chain = chains[0];
  if (!chain || chain.contacts.length < 2) return null;
  const { lane, contacts } = chain;
  const wanted = JSON.stringify(lane.setup.controls ?? {});
  const fed = (node: number) =>
    cellOf(
      model,
      pickBetween(
        model,
        'volts',
        [nameOf(model, node), frame],
        (test, expected) =>
          JSON.stringify(test.setup.controls ?? {}) === wanted &&
          typeof expected === 'number' &&
          Math.abs(expected) > 1,
      ),
      readings,
    );
  const supply = fed(contacts[0]!.from);
  const links = contacts.map(({ part, to }) => ({ name: compiled.parts[part]!.part.ref, cell: fed(to) }));
  const read = [
    ...(volts(supply) === undefined ? [] : [{ after: 'supply', value: volts(supply)! }]),
    ...links.flatMap(({ name, cell }) =>
      volts(cell) === undefined ? [] : [{ after: name, value: volts(cell)! }],
    ),
  ];
  const nominal =
    volts(supply) === undefined && typeof supply?.expected === 'number'
      ? Math.abs(supply.expected)
      : undefined;
  const answer = judgeInterlocks({
    ...HEAD,
    sheet: 'interlocks',
    // In this position each of them should be closed.
    switches: links.map(({ name }) => ({ name, type: 'NO', pressed: true })),
    volts: read,
    supplyVolts: read.length > 0 ? nominal : undefined,
  });
  const rows: SheetRow[] = [
    { name: 'supply', cells: [supply], verdict: null },
    ...links.map(({ name, cell }) => ({
      name,
      cells: [cell],
      // One of several that the loss may lie at is not condemned.
      verdict:
        answer.firstLoss?.name === name && answer.suspect.includes(name)
          ? 'bad'
          : read.length > 0 && volts(cell) !== undefined && answer.closed[name]
            ? 'good'
            : null,
    })),
  ];
  const { next } = answer;
  const at =
    next && typeof next === 'object' && 'after' in next
      ? rows.findIndex(({ name }) => name === next.after)
      : -1;
  return {
    name: 'interlocks',
    columns: ['volts'],
    rows,
    next: answer.firstLoss ? null : at >= 0 && rows[at]!.cells[0]?.value === null ? [at, 0] : firstOpen(rows),
    answers: [answer],
  };
}

/** Each conductor to the frame, as far as a tester harms nothing there. */
function insulationSheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet | null {
  const { compiled } = model;
  const frame = nameOf(model, compiled.frame);
  const quickest = new Map<string, { test: Extract<Test, { kind: 'insulation' }>; minutes: number }>();
  for (const { bound, minutes } of testsOf(model)) {
    const { test } = bound;
    if (test.kind !== 'insulation') continue;
    const far = test.from === frame ? test.to : test.to === frame ? test.from : null;
    if (far === null) continue;
    const known = quickest.get(far);
    if (!known || minutes < known.minutes) quickest.set(far, { test, minutes });
  }
  const points = [...quickest].slice(0, MOST_ROWS);
  if (points.length === 0) return null;
  const cells = points.map(([, { test }]) => cellOf(model, test, readings));
  const judged = points.map(([point, { test }], at) => {
    const value = figure(cells[at]);
    return judgeInsulation({
      ...HEAD,
      sheet: 'insulation',
      conductors: [point],
      frame,
      circuitVolts: Math.max(ownVolts(model, [point]), 1),
      testVolts: test.testVolts,
      electronic: undefined,
      policy: undefined,
      passOhms: undefined,
      readings:
        value === undefined
          ? []
          : [{ from: point, to: frame, ohms: value, seconds: undefined, temperatureC: undefined }],
      before: undefined,
    });
  });
  const rows = points.map(([point], at) => ({
    name: point,
    cells: [cells[at]!],
    verdict: judged[at]!.cells[0]?.verdict ?? null,
  }));
  return { name: 'insulation', columns: ['toFrame'], rows, next: firstOpen(rows), answers: judged };
}

/** Every output by itself commanded, and all of them measured. */
function outputsSheetOf(model: CircuitModel, readings: readonly Reading[]): JobSheet | null {
  const { compiled } = model;
  const frame = nameOf(model, compiled.frame);
  const drivers = compiled.parts.filter(({ part }) => part.kind === 'driver');
  if (drivers.length < 2) return null;
  const outs = drivers.map(({ part }) => ({
    ref: part.ref,
    node: (part as { nodes: { out: string } }).nodes.out,
    high: !('side' in part) || part.side !== 'low',
  }));
  const patterns = workingPatterns(model).map((pattern) => ({
    ...pattern,
    on: outs.filter(({ ref }) => isOn(model, ref, pattern.setup)).map(({ ref }) => ref),
  }));
  const rows: SheetRow[] = [];
  const matrix: Record<string, Record<string, number>> = {};
  for (const { ref } of outs) {
    const pattern = patterns.find(({ on }) => on.length === 1 && on[0] === ref);
    const wanted = JSON.stringify(pattern?.setup.controls ?? {});
    const cells = outs.map(({ node }) =>
      pattern
        ? cellOf(
            model,
            pickBetween(
              model,
              'volts',
              [node, frame],
              (test) => JSON.stringify(test.setup.controls ?? {}) === wanted,
            ),
            readings,
          )
        : null,
    );
    rows.push({ name: ref, cells, verdict: null });
    cells.forEach((cell, at) => {
      const value = volts(cell);
      if (value === undefined) return;
      const [here, supply] = [
        outs[at]!,
        Math.max(compiled.volts[compiled.nodeIndex.get(outs[at]!.node)!]!, 1),
      ];
      // What a low-side output does shows across its load: the supply less what stands at the output.
      (matrix[ref] ??= {})[here.ref] = here.high ? value : Math.max(supply - value, 0);
    });
  }
  const names = outs.map(({ ref }) => ref);
  const answer = judgeOutputs({
    ...HEAD,
    sheet: 'outputs',
    outputs: names,
    master: undefined,
    modules: undefined,
    supplyVolts: Math.max(...outs.map(({ node }) => compiled.volts[compiled.nodeIndex.get(node)!]!), 1),
    loads: 'on',
    matrix,
    lowImpedance: undefined,
    sensorLoop: 'closed',
  });
  for (const row of rows) row.verdict = answer.of.includes(row.name) ? 'bad' : null;
  const { next } = answer;
  const asked =
    next && 'commanded' in next
      ? ([names.indexOf(next.commanded), names.indexOf(next.measured)] as [number, number])
      : null;
  const open = asked && rows[asked[0]]?.cells[asked[1]]?.value === null ? asked : null;
  return {
    name: 'outputs',
    columns: names,
    rows,
    next: answer.cause ? null : (open ?? firstOpen(rows)),
    answers: [answer],
  };
}

function isOn({ compiled }: CircuitModel, ref: string, { controls = {} }: Setup): boolean {
  const { part } = compiled.parts[compiled.partIndex.get(ref)!]!;
  if (part.kind !== 'driver') return false;
  return Object.entries(part.onWhen ?? {}).every(([control, positions]) =>
    positions.includes(controls[control] ?? compiled.circuit.controls[control]![0]!),
  );
}
