import type { Random } from '../../random';
import type { ConnectorAnswer } from '../connector/connector';
import { between, digits, head, metered, pick, type Planted } from './plant';

const WRONG = ['nothing', 'open', 'high', 'short', 'diodeShorted', 'diodeOpen', 'diodeReversed'] as const;

/** A plug with its lead, all of it read: a core open or bad, two cores one, or its diode. */
export function connector(random: Random): Planted {
  const cause = pick(random, WRONG);
  const pins = ['1', '2', '3', '4'].slice(0, 2 + Math.floor(3 * random.next())).concat('PE');
  const leadOhms = digits(between(random, 0.1, 0.4), 1);
  const [bad, other] = [pins[0]!, pins[1]!];
  const core = (pin: string): number | 'OL' => {
    if (pin !== bad || (cause !== 'open' && cause !== 'high'))
      return Math.max(0, metered(random, leadOhms + between(random, 0.02, 0.25)));
    return cause === 'open' ? 'OL' : metered(random, leadOhms + between(random, 1.2, 40));
  };
  const pairs = pins.flatMap((from, at) =>
    pins.slice(at + 1).map((to) => ({
      from,
      to,
      ohms:
        cause === 'short' && from === bad && to === other
          ? metered(random, between(random, 0.2, 4))
          : ('OL' as const),
    })),
  );
  const volts = digits(between(random, 0.5, 0.75), 3);
  const [forward, reverse] =
    cause === 'diodeShorted'
      ? [0.002, 0.003]
      : cause === 'diodeOpen'
        ? (['OL', 'OL'] as const)
        : cause === 'diodeReversed'
          ? (['OL', volts] as const)
          : ([volts, 'OL'] as const);
  const named = (answer: ConnectorAnswer): boolean => {
    if (cause === 'nothing') return answer.verdict === 'good';
    if (cause === 'short') return answer.shorted.length === 1 && answer.shorted[0]![0] === bad;
    if (cause === 'open' || cause === 'high')
      return answer.pins.every(({ pin, verdict }) => verdict === (pin === bad ? cause : 'good'));
    return `diode${answer.diode?.[0]?.toUpperCase()}${answer.diode?.slice(1)}` === cause;
  };
  return {
    document: {
      ...head('connector'),
      pins,
      leadOhms,
      through: pins.map((pin) => ({ pin, ohms: core(pin) })),
      between: pairs,
      anode: other,
      cathode: bad,
      forward,
      reverse,
    },
    cause,
    judge: (answer: ConnectorAnswer) =>
      answer.verdict === null ? 'open' : named(answer) ? 'right' : 'wrong',
  };
}
