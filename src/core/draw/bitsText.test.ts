import { readBits, writeBits } from './bitsText';

describe('bits of a controller output in a line', () => {
  it.each([
    ['command Clamp down, feedback Clamp is on', { command: 'Clamp down', feedback: 'Clamp is on' }],
    ['Feedback I 12', { feedback: 'I 12' }],
    ['  ', undefined],
  ])('%s', (text, wanted) => {
    expect(readBits(text)).toEqual(wanted);
    expect(readBits(writeBits(wanted))).toEqual(wanted);
  });

  it.each(['Clamp down', 'command', 'input 7'])('refuses %s', (text) =>
    expect(() => readBits(text)).toThrow(/is no bit; write command or feedback/),
  );

  it('refuses one that is named twice', () =>
    expect(() => readBits('command A, command B')).toThrow(/has the command bit twice/));
});
