import { isGroundStud } from '@/core/diagnosis/setApart';
import type { FreeCheck } from '@/core/job/freeChecks';
import { partWords, positionWords, type Speaker } from './readings';

/** What is looked at, and what it should be. */
export function checkWords(speaker: Speaker, { kind, subject, test }: FreeCheck): [string, string] {
  const where = test ? positionWords(speaker.model.compiled.circuit.controls, test.setup) : '';
  switch (kind) {
    case 'gauge':
      return [`Gauge at ${subject}`, 'supply on, nothing moving'];
    case 'click':
      return [partWords(speaker, subject), where || 'commanded'];
    case 'override':
      return [`${subject} pushed over by hand`, 'something will move: who is in the way?'];
    case 'plug': {
      if (!isGroundStud(speaker.model, subject)) return [`Plug ${subject}`, 'seated, pins straight, dry'];
      const stud = speaker.model.compiled.circuit.parts.find(
        (part) => part.kind === 'pin' && part.connector === subject,
      )!;
      return [partWords(speaker, stud.ref), 'tight, clean, bare metal under it'];
    }
    case 'leak':
      return [`Hoses and fittings, ${subject}`, 'supply on: no hiss, no oil; never felt for by hand'];
    case 'rod':
      return [
        `${partWords(speaker, subject)} moved by hand`,
        'made safe, vented, its load held: free over its whole way',
      ];
    case 'rotor':
      return [
        `${partWords(speaker, subject)} turned by hand`,
        'made safe and locked, what it drives held: turns right round, no hard spot',
      ];
    case 'throttle':
      return [partWords(speaker, subject), 'screw where it was set, not turned in; its lock nut tight'];
    case 'loom':
      return [subject, 'no rub, no pinch, no earlier repair'];
    case 'relief':
      return [
        partWords(speaker, subject),
        'while pressure stands at it: silent, no warmer than what it sits in; listened to, felt with the back of a glove',
      ];
    case 'water':
      return [subject, 'anywhere along the path'];
  }
}
