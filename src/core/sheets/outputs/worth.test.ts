import { MENDING_ROWS, shopMarks } from '../../tables/marks';
import { mendings } from './worth';

describe('what a controller’s mending is worth', () => {
  it('the smallest way first, with the shop’s minutes and costs; nothing while no cause stands', () => {
    const marks = shopMarks({ [`controller-parts|${MENDING_ROWS.module}|cost`]: 180 });
    expect(mendings('deadOutput', marks)).toEqual([
      { way: 'freeOutput', minutes: 25, cost: null },
      { way: 'module', minutes: 25, cost: 180 },
      { way: 'controller', minutes: 90, cost: null },
    ]);
    expect(mendings(null, marks)).toEqual([]);
    expect(mendings('healthy', marks)).toEqual([]);
  });

  it('never offers to go round a loop of sensors', () => {
    expect(mendings('openSensorLoop', shopMarks({})).map(({ way }) => way)).toEqual(['wire', 'sensor']);
  });
});
