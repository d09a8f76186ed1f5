import { inReadingOrder, inWalkingOrder } from './walk';

describe('a round', () => {
  it('goes from machine to machine as they stand in a row', () => {
    const row = (machine_code: string, function_name = 'Float', machine_place: string | null = null) => ({
      machine_code,
      function_name,
      machine_place,
    });
    const walked = inWalkingOrder([
      row('G-10'),
      row('P-1'),
      row('G-2', 'Tilt'),
      row('G-2'),
      row('W-9', 'Winch', 'Bay 1'),
    ]);
    expect(walked.map(({ machine_code, function_name }) => `${machine_code} ${function_name}`)).toEqual([
      'W-9 Winch',
      'G-2 Float',
      'G-2 Tilt',
      'G-10 Float',
      'P-1 Float',
    ]);
  });
  it('reads the dead circuit first: it is locked once', () => {
    const volts = { test: { kind: 'volts', from: 'a', to: 'b', setup: {} } as const };
    const ohms = { test: { kind: 'ohms', from: 'a', to: 'b', setup: {} } as const };
    expect(inReadingOrder([volts, ohms, { test: null }]).map(({ test }) => test?.kind)).toEqual([
      'ohms',
      'volts',
      undefined,
    ]);
  });
});
