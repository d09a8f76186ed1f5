import { CircuitModel } from '../circuit/model';
import { demoCircuit } from '../../testing/demoCircuits';
import { leftBetween } from './leftBetween';

const tilt = new CircuitModel(demoCircuit('groomer-blade-tilt'));

describe('what is left where no test tells more', () => {
  it('an equal coil that nothing is held against can be put in the place of the doubted one', () => {
    const left = leftBetween(tilt, [
      { part: 'Y8', share: 0.3 },
      { part: 'Y8', share: 0.2 },
      { part: 'X8.1', share: 0.4 },
      { part: 'W15', share: 0.05 },
      { part: 'Y7', share: 0.01 },
    ])!;
    expect(left.parts).toEqual(['Y8', 'X8.1']);
    expect(left.swap).toEqual({ part: 'Y8', twin: 'Y7' });
    expect(left.first).toBe('Y8');
  });

  it('not where the equal is doubted too', () => {
    const left = leftBetween(tilt, [
      { part: 'Y8', share: 0.5 },
      { part: 'Y7', share: 0.4 },
    ])!;
    expect(left.swap).toBeNull();
  });

  it('four are too many to try one after the other', () => {
    const left = leftBetween(
      tilt,
      ['W15', 'X8.1', 'X8.2', 'W17'].map((part) => ({ part, share: 0.24 })),
    )!;
    expect(left).toEqual({ parts: ['W15', 'X8.1', 'X8.2', 'W17'], swap: null, first: null });
  });

  it('of two as likely the one that is got at sooner is tried first; nothing where nothing leads', () => {
    const slow = demoCircuit('groomer-blade-tilt');
    const parts = slow.parts.map((part) => (part.ref === 'W15' ? { ...part, accessMinutes: 60 } : part));
    const model = new CircuitModel({ ...slow, parts });
    const left = leftBetween(model, [
      { part: 'W15', share: 0.45 },
      { part: 'X8.1', share: 0.44 },
    ])!;
    expect(left).toEqual({ parts: ['W15', 'X8.1'], swap: null, first: 'X8.1' });
    expect(leftBetween(model, [{ part: 'W15', share: 0.04 }])).toBeNull();
  });
});
