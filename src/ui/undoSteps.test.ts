import { MOST_STEPS, move, startSteps, type Move, type Steps } from './undoSteps';

const play = (moves: readonly Move<string>[]): Steps<string> =>
  moves.reduce<Steps<string>>(move, startSteps('begin'));
const now = ({ steps, at }: Steps<string>) => steps[at];
const put = (to: string): Move<string> => ({ is: 'put', to });
const goOn = (to: string): Move<string> => ({ is: 'goOn', to });

describe('steps that are taken back', () => {
  it('go back and forth, and stop at either end', () => {
    const two = [put('one'), put('two')];
    expect(now(play(two))).toBe('two');
    expect(now(play([...two, { is: 'undo' }]))).toBe('one');
    expect(now(play([...two, { is: 'undo' }, { is: 'redo' }]))).toBe('two');
    expect(now(play([...two, ...Array<Move<string>>(5).fill({ is: 'undo' })]))).toBe('begin');
    expect(now(play([...two, { is: 'redo' }]))).toBe('two');
  });

  it('forget what was taken back once something else is done', () => {
    const other = play([put('one'), { is: 'undo' }, put('other')]);
    expect(other.steps).toEqual(['begin', 'other']);
    expect(now(move(other, { is: 'redo' }))).toBe('other');
  });

  it('are kept up to a number, the oldest going first', () => {
    const many = play(Array.from({ length: MOST_STEPS + 5 }, (_one, k) => put(String(k))));
    expect(many.steps).toHaveLength(MOST_STEPS);
    expect(now(many)).toBe(String(MOST_STEPS + 4));
    const back = Array.from({ length: MOST_STEPS }).reduce<Steps<string>>(
      (at) => move(at, { is: 'undo' }),
      many,
    );
    expect(now(back)).toBe('5');
  });

  it('begin anew from something else', () => {
    const anew = play([put('one'), { is: 'start', to: 'library' }]);
    expect(anew).toEqual(startSteps('library'));
  });

  it('go on with a step that was begun, and never write over the beginning', () => {
    const typed = play([put('1'), goOn('12'), goOn('123')]);
    expect(now(typed)).toBe('123');
    expect(now(move(typed, { is: 'undo' }))).toBe('begin');
    expect(now(move(play([goOn('1')]), { is: 'undo' }))).toBe('begin');
  });
});
