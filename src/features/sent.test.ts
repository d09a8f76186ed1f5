import { sent } from './sent';

describe('what a page wishes of the server', () => {
  it('is what the server answered', async () => {
    expect(await sent(Promise.resolve({ trouble: null, kept: 3 }))).toEqual({ trouble: null, kept: 3 });
  });

  it('is a sentence where it was not answered, its own where the page has one', async () => {
    const away = () => Promise.reject(new Error('Failed to fetch'));
    expect(await sent(away())).toEqual({
      trouble: 'The server does not answer. What was typed stands here; try again.',
    });
    const instead = { trouble: 'The drawing is safe on this device.', away: true };
    expect(await sent(away(), instead)).toBe(instead);
  });
});
