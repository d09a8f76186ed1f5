import type { CoilAnswer } from '../coil/coil';
import type { ContactVerdict } from '../contacts/contacts';
import type { DiodeAnswer } from '../diode/diode';
import type { DropAnswer } from '../drop/drop';
import type { InsulationVerdict } from '../insulation/insulation';
import type { ContactJudged } from '../terminals/terminals';
import type { WindingsAnswer } from '../windings/windings';

/** What each sheet of a job may say of one of its rows. Words and tones are given for each of them: a new one is named by the compiler there. */
export interface SheetVerdicts {
  functions: 'good' | 'weak' | 'dead';
  coil:
    | Exclude<CoilAnswer['verdict'], 'unknown'>
    /** As it stands: it, or what lies across it. */
    | 'lowHere'
    | 'across'
    | 'notFed'
    | 'moreDrawn'
    | 'notSeated';
  windings: Exclude<WindingsAnswer['verdict'], 'unknown'> | 'doNotAdd' | 'exchanged' | 'off';
  contacts:
    | ContactVerdict
    | 'carries'
    | 'notFed'
    | 'elsewhere'
    /** It loses too much, or too much flows through it. */
    | 'mayDrawMore'
    /** It is good itself, and more flows than its load draws by the drawing. */
    | 'moreDrawn'
    /** One that runs against it is fed as well. */
    | 'heldOff';
  terminals: ContactJudged['verdict'] | 'elsewhere' | 'doubt';
  diodes: NonNullable<DiodeAnswer['verdict']> | 'shortedHere' | 'across';
  interlocks: 'good' | 'bad' | 'doubt';
  timeline: 'good' | 'bad';
  drop: NonNullable<DropAnswer['segments'][number]['verdict']> | 'mayDrawMore' | 'open' | 'notMade';
  insulation: InsulationVerdict;
  conductors: InsulationVerdict;
  outputs: 'bad' | 'heldDown' | 'heldUp' | 'field';
  survey: 'good' | 'bad';
  needs: 'good' | 'bad';
  cylinders: 'good' | 'bad';
  proofChain:
    | 'good'
    | 'on'
    | 'leaks'
    /** A low side without volts at rest: on, or nothing comes to it through its load. */
    | 'silent'
    | 'unfed'
    | 'program'
    | 'output'
    | 'way'
    | 'load'
    | 'tooMuch';
  actuation: 'still';
}
export type AnyVerdict = SheetVerdicts[keyof SheetVerdicts];
