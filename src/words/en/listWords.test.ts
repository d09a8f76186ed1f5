import { listWords } from './listWords';

test('names are listed as a person does, and of many the first and how many more', () => {
  expect(listWords([], 'and')).toBe('');
  expect(listWords(['Y8'], 'and')).toBe('Y8');
  expect(listWords(['R2', 'H2'], 'or')).toBe('R2 or H2');
  expect(listWords(['a', 'b', 'c', 'd'], 'and', 4)).toBe('a, b, c and d');
  expect(listWords(['a', 'b', 'c', 'd', 'e'], 'and', 4)).toBe('a, b, c and 2 more');
});
