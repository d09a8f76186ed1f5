import { render } from '@testing-library/react';
import { CircuitModel } from '@/core/circuit/model';
import { findLanes } from '@/core/path/lanes';
import { layoutPath } from '@/core/path/layoutPath';
import { demoCircuit } from '@/testing/demoCircuits';
import { PathFigure } from './PathFigure';

const model = new CircuitModel(demoCircuit('press-clamp'));
const { compiled } = model;
const lanes = findLanes(model);
const lane = lanes.lanes.find(({ id }) => id === 'C1')!;
const standings = compiled.parts.map(() => ({ state: 'doubt' as const, share: 0.05, turns: 1 }));

function figure(width: number, gone: readonly string[] = []) {
  const now = standings.map((one, at) =>
    gone.includes(compiled.parts[at]!.part.ref) ? { state: 'spared' as const, share: 0, turns: 0 } : one,
  );
  const layout = layoutPath(model, lanes, lane, { width, standings: now, asked: [], low: false });
  return {
    layout,
    drawn: (
      <PathFigure
        layout={layout}
        parts={compiled.parts}
        gaugeUnit="bar"
        alternating={compiled.alternating}
        standings={now}
        pins={[]}
        spans={[]}
        leads={null}
        tag={{ left: 24, right: width - 24, drop: 20, scrolled: 0 }}
        typed=""
        statement={['The doubt is on Q1.']}
        noReach={new Set()}
        apart={new Set()}
        closed={new Set()}
        dead={false}
        nameOf={() => ''}
        stale={false}
        onPoint={() => undefined}
        onLane={() => undefined}
        onRun={() => undefined}
      />
    ),
  };
}

test('a part that stands on the path in two pieces is drawn in two, also where the path is laid out anew', () => {
  const first = figure(1280);
  const { container, rerender } = render(first.drawn);
  const pieces = () => container.querySelectorAll('g[data-part=Q1]').length;
  expect(first.layout.runs.filter(({ parts }) => parts.includes(compiled.partIndex.get('Q1')!))).toHaveLength(
    2,
  );
  expect(pieces()).toBe(2);
  for (const next of [figure(1024), figure(900, ['Z1', 'Z2', 'H1', 'R4', 'H4']), figure(1280)]) {
    rerender(next.drawn);
    expect(pieces()).toBe(2);
    const names = [...container.querySelectorAll('g[data-part]')].map((one) => one.getAttribute('data-part'));
    const runs = next.layout.runs.filter(({ folded }) => !folded).length;
    expect(names.filter((name) => name !== 'C1')).toHaveLength(runs);
  }
});
