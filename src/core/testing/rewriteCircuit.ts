import type { Circuit, Part } from '../circuit/schema';
import type { FaultName } from '../diagnosis/faultTypes';

/**
 * The plain way to a faulty circuit: the file itself rewritten, every part of it compiled and solved anew. `null` for
 * faults that cannot be written as parts.
 */
export function rewriteCircuit(
  circuit: Circuit,
  ref: string,
  fault: FaultName,
  severity: number,
): Circuit | null {
  const part = circuit.parts.find((one) => one.ref === ref)!;
  const parts = rewritten(part, fault, severity, circuit.frame);
  if (!parts) return null;
  return { ...circuit, parts: circuit.parts.flatMap((one) => (one === part ? parts : [one])) };
}

function rewritten(part: Part, fault: FaultName, severity: number, frame: string): Part[] | null {
  const beside = (from: string, to: string, ohms: number): Part => ({
    ref: `${part.ref}'`,
    kind: 'wire',
    nodes: { '1': from, '2': to },
    ohms,
  });
  switch (fault) {
    case 'noOutput':
      return [];
    case 'lowVoltage':
      return part.kind === 'source' ? [{ ...part, volts: part.volts * severity }] : null;
    case 'open':
      return part.kind === 'relay' || part.kind === 'sensor3' || part.kind === 'transformer' ? null : [];
    case 'highResistance':
      if (part.kind === 'relay') return null;
      return [{ ...part, ohms: severity } as Part];
    case 'shortedTurns':
      return [{ ...part, ohms: severity, ...inductance(part, severity) } as Part];
    case 'shortToFrame': {
      const nodes = part.nodes as { '1': string; '2': string };
      return [part, beside(nodes['1'] === frame ? nodes['2'] : nodes['1'], frame, severity)];
    }
    case 'stuckOpen':
      return part.kind === 'switch' || part.kind === 'timer' ? [] : null;
    case 'stuckClosed':
      return part.kind === 'switch' || part.kind === 'timer'
        ? [beside(part.nodes['1'], part.nodes['2'], part.ohms ?? 0.01)]
        : null;
    case 'bridged':
      return part.kind === 'switch' ? [part, beside(part.nodes['1'], part.nodes['2'], severity)] : null;
    case 'short':
      if (part.kind === 'diode') return [part, beside(part.nodes.anode, part.nodes.cathode, 0.02)];
      return part.kind === 'sensor3' ? null : [{ ...part, ohms: 0.02 } as Part];
    case 'reversed':
      return part.kind === 'diode'
        ? [{ ...part, nodes: { anode: part.nodes.cathode, cathode: part.nodes.anode } }]
        : null;
    case 'stuckOn':
      return part.kind === 'driver' && part.limitAmps === undefined
        ? [
            part.side === 'low'
              ? beside(part.nodes.out, part.nodes.return, 0.05)
              : beside(part.nodes.supply, part.nodes.out, 0.05),
          ]
        : null;
    case 'lowPressure':
      return part.kind === 'airSupply' || part.kind === 'pump' || part.kind === 'regulator'
        ? [{ ...part, kPa: part.kPa * severity }]
        : null;
    case 'blocked':
      return part.kind === 'regulator' ? [] : [{ ...part, restriction: severity } as Part];
    case 'leaking': {
      if (part.kind !== 'hose') return null;
      const vent: Part = {
        ref: `${part.ref}'`,
        kind: 'silencer',
        nodes: { in: part.nodes['1'] },
        restriction: severity,
      };
      return [part, vent];
    }
    case 'sealLeak':
      if (part.kind !== 'cylinder' || !part.nodes.b) return null;
      return [
        part,
        {
          ref: `${part.ref}'`,
          kind: 'throttle',
          nodes: { '1': part.nodes.a, '2': part.nodes.b },
          restriction: severity,
        },
      ];
    default:
      return null;
  }
}

/** Fewer turns: inductance falls with their square, resistance with their number; what the label says of the whole winding is gone. */
function inductance(part: Part, ohms: number): { henries?: number } {
  if ((part.kind !== 'coil' && part.kind !== 'relay') || !part.henries || part.ohms === undefined) return {};
  return { henries: part.henries * (ohms / part.ohms) ** 2 };
}
