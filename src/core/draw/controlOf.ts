import type { Circuit } from '../circuit/schema';
import type { Given } from './chainItem';

/** Positions a control usually has, by a word in its name: rest first; the one that closes a contact. */
const USUAL: readonly {
  word: RegExp;
  positions: readonly [string, string];
  closes: 0 | 1;
}[] = [
  { word: /limit|end stop/i, positions: ['free', 'reached'], closes: 0 },
  { word: /emergency|stop/i, positions: ['free', 'pressed'], closes: 0 },
  { word: /seat/i, positions: ['empty', 'taken'], closes: 1 },
  { word: /guard|door|hood|cover|gate/i, positions: ['open', 'closed'], closes: 1 },
  { word: /brake pedal|pedal|button|start/i, positions: ['free', 'pressed'], closes: 1 },
  { word: /interlock|neutral/i, positions: ['off', 'on'], closes: 1 },
];
const PLAIN = { positions: ['off', 'on'] as const, closes: 1 as 0 | 1 };

/** The control that works a contact or output, added to the circuit where it is new, and when the contact is closed. */
export function controlOf(
  controls: Circuit['controls'],
  given: Pick<Given, 'label' | 'when' | 'normallyClosed' | 'typed'>,
  fallback: string,
): { controls: Circuit['controls']; closedWhen: Record<string, string[]> } {
  const usual = USUAL.find(({ word }) => word.test(given.typed)) ?? PLAIN;
  if (given.when) {
    const { control, positions } = given.when;
    const known = controls[control] ?? ['rest'];
    const all = [...known, ...positions.filter((one) => !known.includes(one))];
    const closed = given.normallyClosed ? all.filter((one) => !positions.includes(one)) : positions;
    return {
      controls: { ...controls, [control]: all },
      closedWhen: { [control]: closed },
    };
  }
  const name = given.label.replace(
    /\b(switch|contact|button|selector|interlock|output|driver|timer)\b/gi,
    '',
  );
  const control = name.trim().toLowerCase() || fallback;
  const positions = controls[control] ?? [...usual.positions];
  const closes = given.normallyClosed ? 0 : usual.closes;
  return {
    controls: { ...controls, [control]: positions },
    // A control that is known already may have more positions: all but rest then close it.
    closedWhen: { [control]: closes === 0 ? [positions[0]!] : positions.slice(1) },
  };
}
