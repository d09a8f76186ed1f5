import type { Guard } from '../circuit/partSchema';
import type { Part } from '../circuit/schema';

const PROPOSALS: readonly (readonly [RegExp, Guard])[] = [
  [/limit|end stop|over-?(travel|run|speed|load|pressure)|cut-?out|high|low water|tilt/i, 'limit'],
  [
    /emergency|stop|seat|operator|presence|tether|dead ?man|two-?hand|guard|door|hood|cover|gate|interlock|neutral|brake|pendant|enable|mat|curtain/i,
    'person',
  ],
  [/load|hold|lock|lower/i, 'load'],
];

/**
 * What a contact may protect, going by what it is called and by the controls that work it. A proposal that is shown
 * beside the question, never an answer: until a person gives one, the contact counts as a guard.
 */
export function proposedGuard(part: Part): Guard {
  const controls = 'closedWhen' in part ? Object.keys(part.closedWhen) : [];
  const name = [part.label ?? '', ...controls].join(' ');
  const proposed = PROPOSALS.find(([word]) => word.test(name))?.[1];
  // What watches a pressure is seldom there for nothing.
  return proposed ?? (part.kind === 'pressureSwitch' ? 'limit' : 'none');
}
