import { CircuitModel } from '../circuit/model';
import { singleCoil } from '../templates/electrical';
import { closeUp, probePlace, type PinnedSheet } from './probePlaces';

const model = new CircuitModel(singleCoil());
const sheet = (id: string, ...pins: [string, number, number][]): PinnedSheet => ({
  id,
  name: id,
  photo: id,
  pins: pins.map(([part, x, y]) => ({ part, x, y })),
});
const volts = { kind: 'volts', from: 'X1.1:2', to: 'Y1:2', setup: {} } as const;

describe('where the probes go', () => {
  it('is on the picture that shows most of it, points before parts', () => {
    const parts = sheet('parts', ['X1', 0.2, 0.2], ['Y1', 0.6, 0.6]);
    const points = sheet('points', ['@X1.1:2', 0.3, 0.4], ['@Y1:2', 0.5, 0.4]);
    const half = sheet('half', ['@X1.1:2', 0.1, 0.1]);
    expect(probePlace(model, volts, [parts, half, points])).toEqual({
      sheet: points,
      marks: [
        { lead: 'plus', x: 0.3, y: 0.4, pin: '@X1.1:2' },
        { lead: 'minus', x: 0.5, y: 0.4, pin: '@Y1:2' },
      ],
    });
    expect(probePlace(model, volts, [half])!.marks).toHaveLength(1);
  });
  it('falls back on a part that ends there, never on one that only hangs on the frame', () => {
    const found = probePlace(model, { ...volts, to: 'GND' }, [
      sheet('parts', ['Y1', 0.6, 0.6], ['G1', 0.1, 0.1]),
    ])!;
    expect(found.marks.map(({ lead, pin }) => [lead, pin])).toEqual([['plus', 'Y1']]);
  });
  it('of a clamp or an ear is the part itself; nothing where no picture shows it', () => {
    const own = sheet('parts', ['Y1', 0.6, 0.6]);
    expect(probePlace(model, { kind: 'amps', through: 'Y1', setup: {} }, [own])!.marks[0]!.lead).toBe('one');
    expect(probePlace(model, { kind: 'click', part: 'Y1', setup: {} }, [own])!.marks[0]!.pin).toBe('Y1');
    expect(probePlace(model, { kind: 'fuse', part: 'F1', setup: {} }, [own])).toBeNull();
    expect(probePlace(model, volts, [])).toBeNull();
  });
  it('is enlarged so that its marks fill half of what is shown, within the picture', () => {
    const near = closeUp([
      { x: 0.4, y: 0.5 },
      { x: 0.6, y: 0.5 },
    ]);
    expect(near.zoom).toBeCloseTo(2.5, 6);
    expect(near.x).toBeCloseTo(0.5, 9);
    const corner = closeUp([{ x: 0.02, y: 0.98 }]);
    expect(corner.zoom).toBe(3);
    expect(corner.x).toBeCloseTo(0.5 / 3, 9);
    expect(corner.y).toBeCloseTo(1 - 0.5 / 3, 9);
    expect(
      closeUp([
        { x: 0, y: 0 },
        { x: 1, y: 1 },
      ]),
    ).toEqual({ x: 0.5, y: 0.5, zoom: 1 });
  });
});
