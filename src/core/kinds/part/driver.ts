import { bridged, forced, type SeverityRange } from '../../diagnosis/faultTypes';
import { definePart, nothing, traits } from './module';

const OUTPUT_OHMS = 0.05;
/** What a damaged output lets through while it is off. */
const LEAKY: SeverityRange = { unit: 'ohms', least: 10, most: 1e5, mainLeast: 10, mainMost: 2000 };

export const driver = definePart<'driver'>()({
  chain: { letter: 'A', figure: 'limitAmps', words: ['controller output', 'driver', 'output'] },
  traits: traits({ electronic: true, unit: true }),
  accessMinutes: 1.2,
  odds: { noOutput: 0.5, noCommand: 0.4, stuckOn: 0.2, leakyOutput: 0.2, blockDead: 0.2 },
  branches: ({ nodes, side, ohms }) => {
    const [from, to] = side === 'low' ? [nodes.out, nodes.return] : [nodes.supply, nodes.out];
    return [{ role: 'output', from, to, ohms: ohms ?? OUTPUT_OHMS }];
  },
  devices: ({ limitAmps }, { branches: [own] }) =>
    limitAmps === undefined
      ? []
      : [{ kind: 'driver', branch: own!.index, limit: limitAmps, ohms: own!.ohms }],
  faults: ({ add, body: own }, { bits }) => {
    add('noOutput', null, [forced(own, false)]);
    // Only where somebody can see what the program asks for are the two told apart.
    if (bits?.command !== undefined)
      add('noCommand', null, [
        { weight: 1, edits: () => [{ type: 'force', branch: own.index, on: false, unasked: true }] },
      ]);
    add('stuckOn', null, [forced(own, true)]);
    add('leakyOutput', LEAKY, [bridged(own)]);
  },
  energy: nothing,
  labelled: { limitAmps: { saidBy: ['limitAmps', 'amps'] } },
  make: ({ common, near, far, frame, plus, given: { figures, lowSide }, worked }) => {
    const { closedWhen, controls } = worked('command');
    return {
      part: {
        ...common,
        kind: 'driver',
        nodes: lowSide
          ? { supply: plus, out: near, return: frame }
          : { supply: near, out: far, return: frame },
        onWhen: closedWhen,
        side: lowSide ? 'low' : 'high',
        limitAmps: figures.limitAmps ?? figures.amps ?? 4,
      },
      controls,
    };
  },
});
