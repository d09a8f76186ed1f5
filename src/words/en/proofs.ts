import type { Proof } from '@/core/job/proofList';
import { pointTitle } from './energies';
import { partWords, pointName, positionWords, quantity, type Speaker } from './readings';

/** What a proof asks for, in one line. */
export function proofWords(speaker: Speaker, proof: Proof): string {
  switch (proof.kind) {
    case 'works':
      return `${partWords(speaker, proof.part)} works, ${positionWords(speaker.model.compiled.circuit.controls, proof.setup) || 'at rest'}`;
    case 'current':
      return `Current of ${partWords(speaker, proof.part)}, about ${quantity('amps', proof.expected)}`;
    case 'insulation':
      return `Insulation, ${pointName(speaker, proof.test.from)} to ${pointName(speaker, proof.test.to)} with ${proof.test.testVolts} V, over ${quantity('ohms', proof.least)}`;
    case 'fuseHolds':
      return `${partWords(speaker, proof.test.part)} holds for ${proof.minutes} min under load, ${positionWords(speaker.model.compiled.circuit.controls, proof.test.setup) || 'at rest'}`;
    case 'drop':
      return `Volts lost on the ${proof.side} of ${proof.part}, ${pointName(speaker, proof.test.from)} to ${pointName(speaker, proof.test.to)}, under ${quantity('volts', proof.most)}`;
    case 'signal':
      return `Signal of ${partWords(speaker, proof.part)} with ${proof.control} ${proof.position}, ${pointName(speaker, proof.test.from)} to ${pointName(speaker, proof.test.to)}, about ${quantity('volts', proof.expected)}`;
    case 'interlock':
      return `${partWords(speaker, proof.part)} stops with ${proof.control} ${proof.position}`;
    case 'code':
      return `Code ${proof.code} cleared, and gone after a cycle`;
    case 'wire':
      return `Wire back on ${proof.part}:${proof.terminal}`;
    case 'ledger':
      return `${proof.item} is ${proof.lifted ? 'back on' : 'out'}${proof.guards.length > 0 ? `; it defeats ${proof.guards.join(', ')}` : ''}`;
    case 'isolation':
      return `Lock off ${pointTitle(proof.point)}, by its owner`;
    case 'tight':
      return `${partWords(speaker, proof.part)} is tight at working pressure: soapy water at its joints, each position`;
  }
}
