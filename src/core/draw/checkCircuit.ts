import { saidOf } from '../circuit/assumed';
import { controlsOf } from '../circuit/controlsOf';
import { InputError } from '../circuit/inputError';
import { CircuitModel } from '../circuit/model';
import type { Circuit, Part, Setup } from '../circuit/schema';
import { branchAmps, branchVolts, fuseLoadOf, type World } from '../circuit/world';
import { ATMOSPHERE } from '../kinds/part/branch';
import type { Guard, LabelFigure } from '../circuit/partSchema';
import { kindOf, isFluidEnd, unsaidFigures } from '../kinds/part/index';
import { electronicsOf } from '../safety/electronics';
import { guardOf } from '../safety/guards';
import { touching } from './editCircuit';
import { proposedGuard } from './proposedGuard';

/** Something about a drawing that would leave its diagnosis wrong or weak. The wording lives in the interface. */
export type Finding =
  | { code: 'broken'; field: string; problem: string }
  | { code: 'noSource' }
  | { code: 'floating'; node: string; part: string; fluid: boolean }
  | { code: 'noFeed' | 'noReturn' | 'neverFed' | 'cannotBeAlone' | 'noIsolation'; part: string }
  | { code: 'sourceShort'; part: string; setup: Setup; amps: number }
  | { code: 'fuseSmall'; part: string; setup: Setup; amps: number; rating: number }
  | { code: 'cannotPullIn'; part: string; has: number; needs: number; unit: 'A' | 'V' }
  | { code: 'chatters'; setup: Setup }
  | { code: 'unusedControl'; control: string }
  /** Nobody has said whom its contact protects; what its name suggests is a proposal, no answer. */
  | { code: 'guardUnanswered'; part: string; proposed: Guard }
  /** Nobody knows what this coil reads, or what limits it on alternating volts. */
  | { code: 'noValue' | 'noImpedance'; part: string }
  /** Usual figures stand where its label's should. */
  | { code: 'usualFigure'; part: string; figures: Partial<Record<LabelFigure, number>> }
  /** Nobody has said whether it is a plain contact or stands for the output of electronics. */
  | { code: 'electronicUnanswered'; part: string };

/** A pull-up at a controller’s input passes microamperes, and is fed for all that. */
const FLOWS = 1e-6;
/** A supply that gives this share of what it could into a dead short is shorted by the drawing. */
const SHORT_SHARE = 0.25;
/** A fuse that sees this many times its rating sees a short, not a load. */
const SHORT_LOAD = 8;

/** What is wrong with a drawing, or missing: the gravest first. An empty list means it can be diagnosed as it stands. */
export function checkCircuit(circuit: Circuit): Finding[] {
  if (circuit.parts.length === 0) return [];
  const findings: Finding[] = [];
  const source = circuit.parts.some((part) => kindOf(part).traits.supply);
  if (!source) findings.push({ code: 'noSource' });
  findings.push(...floatingEnds(circuit));
  let labels: Finding[] = [];
  if (source) {
    try {
      const model = new CircuitModel(circuit);
      findings.push(...solvedFindings(model));
      labels = labelFindings(model);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      findings.unshift({ code: 'broken', field: error.field, problem: error.problem });
    }
  }
  for (const part of circuit.parts) {
    const { supply, stores } = kindOf(part).traits;
    if ((supply || stores) && !('how' in part && part.how))
      findings.push({ code: 'noIsolation', part: part.ref });
  }
  for (const part of circuit.parts) {
    if (guardOf(part) === 'unanswered')
      findings.push({ code: 'guardUnanswered', part: part.ref, proposed: proposedGuard(part) });
    if (electronicsOf(part) === 'unanswered') findings.push({ code: 'electronicUnanswered', part: part.ref });
  }
  const used = new Set(circuit.parts.flatMap(controlsOf));
  for (const control of Object.keys(circuit.controls))
    if (!used.has(control)) findings.push({ code: 'unusedControl', control });
  return [...findings, ...labels];
}

/** Ends that touch nothing else. A cylinder without a second port and an open driver return are meant. */
function floatingEnds(circuit: Circuit): Finding[] {
  const findings: Finding[] = [];
  for (const part of circuit.parts) {
    for (const [key, node] of Object.entries(part.nodes as Record<string, string>)) {
      if (node === circuit.frame || node === ATMOSPHERE || touching(circuit, node) > 1) continue;
      findings.push({ code: 'floating', node, part: part.ref, fluid: isFluidEnd(part, key) });
    }
  }
  return findings;
}

function solvedFindings(model: CircuitModel): Finding[] {
  const { compiled } = model;
  const timed = compiled.circuit.parts.some(({ kind }) => kind === 'timer');
  const worlds = model.combinations.flatMap((controls) =>
    (timed ? [undefined, 0.1] : [undefined]).map((afterSeconds): { setup: Setup; world: World } => {
      const setup: Setup = {
        ...(Object.keys(controls).length > 0 ? { controls } : {}),
        ...(afterSeconds === undefined ? {} : { afterSeconds }),
      };
      return { setup, world: model.situation(setup).solve({ mode: 'live' }) };
    }),
  );
  const findings: Finding[] = [];
  const chattering = worlds.find(({ world }) => world.chatters);
  if (chattering) findings.push({ code: 'chatters', setup: chattering.setup });
  for (const { part, branches } of compiled.parts) {
    if (part.kind === 'source') findings.push(...shorted(part, branches[0]!.index, worlds));
    if (part.kind === 'fuse' || part.kind === 'breaker') findings.push(...fuseFindings(part, model, worlds));
    if (kindOf(part).traits.draws) findings.push(...loadFindings(part, model, worlds));
  }
  return findings;
}

/** Labels that nobody has read out, or not far enough. */
function labelFindings({ compiled }: CircuitModel): Finding[] {
  return compiled.parts.flatMap(({ part, branches: [own] }): Finding[] => {
    const figures = unsaidFigures(part);
    if (figures.length > 0) {
      const values: Readonly<Record<string, unknown>> = { ...part };
      const usual = Object.fromEntries(figures.map((figure) => [figure, Number(values[figure])]));
      return [{ code: 'usualFigure', part: part.ref, figures: usual }];
    }
    if (own && !own.ohmsKnown) return [{ code: 'noValue', part: part.ref }];
    return own && !own.impedanceKnown ? [{ code: 'noImpedance', part: part.ref }] : [];
  });
}

type Solved = { setup: Setup; world: World };

function shorted(
  part: Extract<Part, { kind: 'source' }>,
  branch: number,
  worlds: readonly Solved[],
): Finding[] {
  const most = Math.abs(part.volts) / Math.max(part.internalOhms ?? 0.02, 1e-4);
  const found = worlds
    .map(({ setup, world }) => ({ setup, amps: Math.abs(branchAmps(world, branch)) }))
    .sort((a, b) => b.amps - a.amps)[0];
  return found && found.amps > SHORT_SHARE * most ? [{ code: 'sourceShort', part: part.ref, ...found }] : [];
}

function fuseFindings(
  part: Extract<Part, { kind: 'fuse' | 'breaker' }>,
  { compiled }: CircuitModel,
  worlds: readonly Solved[],
): Finding[] {
  const index = compiled.partIndex.get(part.ref)!;
  const worst = worlds
    .map(({ setup, world }) => ({ setup, load: fuseLoadOf(world, index) }))
    .sort((a, b) => b.load - a.load)[0];
  if (!worst || worst.load <= 1) return [];
  const amps = worst.load * part.amps;
  return worst.load >= SHORT_LOAD
    ? [{ code: 'sourceShort', part: part.ref, setup: worst.setup, amps }]
    : [{ code: 'fuseSmall', part: part.ref, setup: worst.setup, amps, rating: part.amps }];
}

function loadFindings(part: Part, model: CircuitModel, worlds: readonly Solved[]): Finding[] {
  const { compiled } = model;
  const own = compiled.parts[compiled.partIndex.get(part.ref)!]!;
  const body = own.branches[0]!;
  const feeds = new Set<number>();
  const returns = new Set([compiled.frame]);
  for (const { part: other, nodes } of compiled.parts) {
    if (other.kind === 'source')
      [nodes[0]!, nodes[1]!].forEach((node, at) => (at === 0 ? feeds : returns).add(node));
    if (other.kind === 'transformer') {
      feeds.add(compiled.nodeIndex.get(other.nodes.s1)!);
      returns.add(compiled.nodeIndex.get(other.nodes.s2)!);
    }
  }
  const [a, b] = [reached(model, body.a, body.index), reached(model, body.b, body.index)];
  const meets = (nodes: ReadonlySet<number>, goals: ReadonlySet<number>) =>
    [...goals].some((node) => nodes.has(node));
  if (!meets(a, feeds) && !meets(b, feeds)) return [{ code: 'noFeed', part: part.ref }];
  if (!(meets(a, feeds) && meets(b, returns)) && !(meets(b, feeds) && meets(a, returns)))
    return [{ code: 'noReturn', part: part.ref }];
  const amps = Math.max(...worlds.map(({ world }) => Math.abs(branchAmps(world, body.index))));
  if (amps < FLOWS) return [{ code: 'neverFed', part: part.ref }];
  const findings: Finding[] = [];
  const pullIn = part.kind === 'coil' ? saidOf(part, 'pullInAmps') : undefined;
  if (pullIn !== undefined && amps < pullIn)
    findings.push({ code: 'cannotPullIn', part: part.ref, has: amps, needs: pullIn, unit: 'A' });
  const volts = Math.max(...worlds.map(({ world }) => Math.abs(branchVolts(world, body.index))));
  if (part.kind === 'relay' && part.pickUpVolts && volts < part.pickUpVolts)
    findings.push({ code: 'cannotPullIn', part: part.ref, has: volts, needs: part.pickUpVolts, unit: 'V' });
  const opens = (node: number) =>
    compiled.parts.some(
      ({ part: other, nodes }) => nodes.includes(node) && (other.kind === 'pin' || other.kind === 'fuse'),
    );
  if (part.kind === 'coil' && !opens(body.a) && !opens(body.b))
    findings.push({ code: 'cannotBeAlone', part: part.ref });
  return findings;
}

/** Nodes that a node is tied to by any part but one, whatever the controls. A supply is where a way ends. */
function reached({ compiled }: CircuitModel, start: number, without: number): ReadonlySet<number> {
  const seen = new Set([start]);
  const queue = [start];
  for (const node of queue) {
    for (const branch of compiled.branches) {
      if (branch.index === without || compiled.parts[branch.part]!.part.kind === 'source') continue;
      const to = branch.a === node ? branch.b : branch.b === node ? branch.a : -1;
      if (to < 0 || seen.has(to)) continue;
      seen.add(to);
      queue.push(to);
    }
  }
  return seen;
}
