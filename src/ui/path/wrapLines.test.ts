import { fittingLines, wrapLines } from './wrapLines';

describe('lines of a statement', () => {
  it('are broken between words where they are too long, and left alone where they are not', () => {
    expect(wrapLines(['X8.1 coil plug pin 1 is proved bad: open.', 'OL, 15 to 16, dead.'], 30)).toEqual([
      'X8.1 coil plug pin 1 is proved',
      'bad: open.',
      'OL, 15 to 16, dead.',
    ]);
    expect(wrapLines(['short'], Infinity)).toEqual(['short']);
  });

  it('a word that is longer than a line stands by itself, whole', () => {
    expect(wrapLines(['the Hydraulikmagnetventil hangs'], 8)).toEqual([
      'the',
      'Hydraulikmagnetventil',
      'hangs',
    ]);
  });

  it('a figure keeps its unit', () => {
    expect(wrapLines(['X9.2 is proved bad: bad joint, about 6 Ω.'], 20)).toEqual([
      'X9.2 is proved bad:',
      'bad joint, about',
      '6 Ω.',
    ]);
  });

  it('are said as whole sentences, the first one always', () => {
    const said = ['K1 stands clear. It wants proof on the part itself.', 'Last: 12.2 V.', '8 parts spared.'];
    expect(fittingLines(said, 30, 3)).toEqual([
      'K1 stands clear. It wants',
      'proof on the part itself.',
      'Last: 12.2 V.',
    ]);
    expect(fittingLines(said, 30, 2)).toEqual(['K1 stands clear. It wants', 'proof on the part itself.']);
    expect(fittingLines(said, 18, 2)).toEqual(['K1 stands clear.', 'It wants proof on', 'the part itself.']);
  });
});
