import { significant } from '../units/significant';
import { CIRCUIT_TABLES } from '../tables/tables';
import type { Circuit, Part } from '../circuit/schema';
import type { Finding } from './checkCircuit';
import { changePart, insertBefore, renameNode, setControl, twoEnds } from './editCircuit';
import { emptyDrawing, layChains } from './layChain';

/** A fuse is chosen so that its steady load stays under this share of its rating (ISO 8820-1 usual practice). */
const STEADY_SHARE = 0.75;
/** Pull-in that is taken where the one given cannot be reached, as a share of the current there is. */
const PULL_IN_SHARE = 0.7;

/** The drawing with one finding mended in the usual way; null where only a person can tell what is meant. */
export function mendCircuit(circuit: Circuit, finding: Finding): Circuit | null {
  switch (finding.code) {
    case 'noSource':
      return addBattery(circuit);
    case 'floating':
      return finding.fluid
        ? withPlug(circuit, finding.node)
        : finding.node === circuit.frame
          ? null
          : renameNode(circuit, finding.node, circuit.frame);
    case 'noReturn': {
      const ends = endsOf(circuit, finding.part);
      const open = ends?.find((node) => countAt(circuit, node) === 1);
      return open ? renameNode(circuit, open, circuit.frame) : null;
    }
    case 'fuseSmall': {
      const rating = CIRCUIT_TABLES.fuseRatings.find((amps) => amps * STEADY_SHARE >= finding.amps);
      return rating === undefined ? null : changePart(circuit, finding.part, { amps: rating });
    }
    case 'cannotPullIn': {
      const value = significant(PULL_IN_SHARE * finding.has, 2);
      return changePart(
        circuit,
        finding.part,
        finding.unit === 'A' ? { pullInAmps: value } : { pickUpVolts: value },
      );
    }
    case 'cannotBeAlone':
      return insertBefore({ circuit, at: null }, finding.part, 'plug').circuit;
    case 'noIsolation':
      return changePart(circuit, finding.part, {
        how: howToIsolate(circuit.parts.find((p) => p.ref === finding.part)!),
      });
    case 'guardUnanswered':
      return changePart(circuit, finding.part, { guards: finding.proposed });
    case 'electronicUnanswered':
      return changePart(circuit, finding.part, { electronic: false });
    case 'unusedControl':
      return setControl(circuit, finding.control, null);
    default:
      return null;
  }
}

/** The usual words for cutting an energy off; a shop writes its own over them. */
export function howToIsolate(part: Part): string {
  if (part.kind === 'airSupply')
    return part.kPa < 0 ? 'Vacuum shut off and vented' : 'Shut-off valve closed, locked and vented';
  if (part.kind === 'accumulator') return 'Let down to the tank at its own valve';
  if (part.kind === 'pump') return 'Pump off, pressure let down to the tank';
  if (part.kind === 'source' && (part.hz ?? 0) > 0) return 'Main switch off and locked';
  return 'Battery switch or supply breaker off and locked; a battery’s negative cable off';
}

function addBattery(circuit: Circuit): Circuit {
  const first = circuit.parts[0];
  const ends = first ? twoEnds(first) : null;
  const made = layChains(emptyDrawing(''), 'battery').circuit.parts[0]!;
  const taken = new Set(circuit.parts.map(({ ref }) => ref));
  let ref = 'G1';
  for (let n = 2; taken.has(ref); n++) ref = `G${n}`;
  const battery = { ...made, ref, nodes: { '+': ends?.[0] ?? 'B+', '-': circuit.frame } } as Part;
  return { ...circuit, parts: [battery, ...circuit.parts] };
}

function withPlug(circuit: Circuit, node: string): Circuit {
  const taken = new Set(circuit.parts.map(({ ref }) => ref));
  let n = 1;
  while (taken.has(`U${n}`)) n++;
  return { ...circuit, parts: [...circuit.parts, { ref: `U${n}`, kind: 'plug', nodes: { in: node } }] };
}

function endsOf(circuit: Circuit, ref: string): string[] | null {
  const part = circuit.parts.find((one) => one.ref === ref);
  return part ? (Object.values(part.nodes) as string[]) : null;
}

function countAt(circuit: Circuit, node: string): number {
  return circuit.parts.filter((part) => (Object.values(part.nodes) as string[]).includes(node)).length;
}
