import { licensedFor } from './licensed';

describe('who may work on a refrigerant circuit', () => {
  it('only those that the site’s policy names; nobody where it names none', () => {
    expect(licensedFor('evacuation', ' Henrike, Rasmus ')).toEqual({
      is: 'licensed',
      people: 'Henrike, Rasmus',
    });
    expect(licensedFor('saturation', '   ')).toEqual({ is: 'nobodyNamed' });
    expect(licensedFor('coil', '')).toEqual({ is: 'free' });
  });
});
