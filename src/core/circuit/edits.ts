/** One end of a branch: a leak or bridge sits on the part's own terminal, wherever that is in the set-up. */
export interface Terminal {
  branch: number;
  end: 'a' | 'b';
}

/** How a fault changes the circuit. Resistances of the fluid side are in kPa per L/min. */
export type Edit =
  /** Resistance while conducting; `Infinity` is broken. The contact still follows its control. */
  | {
      type: 'ohms';
      branch: number;
      ohms: number;
      /** A fuse that another fault took, before anybody looked. */ spent?: true;
      /** Of what is held where it would turn, and so at work alone: a meter reads a standing rotor either way. How far it may be off, a share. */
      held?: number;
    }
  /** Conducts, or not, whatever the control says. */
  | {
      type: 'force';
      branch: number;
      on: boolean;
      /** It is not told to: the program does not ask for it. */ unasked?: true;
    }
  /** An armature that stands open: this share of the sealed reactance is left. Nothing on direct current. */
  | { type: 'gap'; branch: number; share: number }
  /** Path from a terminal to the frame (or the atmosphere); with `breakdownVolts` it conducts only above that voltage. */
  | { type: 'leak'; at: Terminal; ohms: number; breakdownVolts?: number }
  | { type: 'bridge'; from: Terminal; to: Terminal; ohms: number }
  | { type: 'emf'; branch: number; factor: number }
  | { type: 'reverse'; branch: number }
  | { type: 'transformer'; part: number; ohms?: number; factor?: number }
  /** What hung on one terminal of each pair hangs on the other: two connectors, or two pins, in each other's place. */
  | { type: 'cross'; pairs: readonly (readonly [Terminal, Terminal])[] }
  /** A valve's spool stands here whatever its coil says. */
  | { type: 'position'; part: number; position: number }
  /** A piston or plunger that does not move. */
  | { type: 'jam'; part: number }
  /** A pressure switch whose points have moved. */
  | { type: 'threshold'; part: number; factor: number };

/** Whether an edit is a fuse that another fault took. */
export function isSpent(edit: Edit): edit is Extract<Edit, { type: 'ohms' }> {
  return edit.type === 'ohms' && edit.spent === true;
}

/** Edits that touch one conductance between two nodes; the network answers these in closed form. */
export type ClosedFormEdit = Extract<Edit, { type: 'ohms' | 'force' | 'gap' | 'leak' | 'bridge' }>;

export function isClosedForm(edit: Edit): edit is ClosedFormEdit {
  return (
    edit.type === 'ohms' ||
    edit.type === 'force' ||
    edit.type === 'gap' ||
    edit.type === 'leak' ||
    edit.type === 'bridge'
  );
}

const texts = new WeakMap<Edit, string>();

/** Text that is equal for equal edits; keys the network cache. Kept per edit: a discrete fault's never changes. */
export function editKey(edits: readonly Edit[]): string {
  let key = '';
  for (const edit of edits) {
    let text = texts.get(edit);
    if (text === undefined) {
      text = JSON.stringify(edit, (_key, value) => (value === Infinity ? 'inf' : value));
      texts.set(edit, text);
    }
    key += text;
  }
  return key;
}

/** Branches that an edit changes, joins or moves; none of one that acts on a part's own mechanism. */
export function branchesOf(edit: Edit): number[] {
  switch (edit.type) {
    case 'leak':
      return [edit.at.branch];
    case 'bridge':
      return [edit.from.branch, edit.to.branch];
    case 'cross':
      return edit.pairs.flat().map(({ branch }) => branch);
    case 'transformer':
    case 'position':
    case 'jam':
    case 'threshold':
      return [];
    case 'ohms':
    case 'force':
    case 'gap':
    case 'emf':
    case 'reverse':
      return [edit.branch];
  }
}
