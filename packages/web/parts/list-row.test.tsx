/** @jest-environment jsdom */
import { cleanup, render } from '@testing-library/react';
import { ListRow, rowHeightOf } from './ListRow';
import type { ListColumn } from './list-view';

afterEach(cleanup);
interface Book {
  readonly title: string;
  readonly name: string;
  readonly number: string;
  readonly copies: number;
}
const COLUMNS: readonly ListColumn<Book>[] = [
  { key: 'name', name: 'Name', of: (b) => b.name, width: 100 },
  { key: 'number', name: 'Call number', of: (b) => b.number, width: 100, isMono: true },
  { key: 'copies', name: 'Copies', of: (b) => b.copies, width: 40, isNumber: true },
];
const book: Book = { title: 'Eels', name: 'Reed, Ada', number: '639 REE', copies: 2 };
const shown = (isDense: boolean, columns: string[]) => {
  const { container } = render(
    <ListRow row={book} title={book.title} columns={COLUMNS} view={{ isDense, columns }} />,
  );
  return [...container.children].map((line) => line.textContent);
};

test('two lines: codes behind the title, the rest below', () =>
  expect(shown(false, ['name', 'number', 'copies'])).toEqual(['Eels639 REE', 'Reed, Ada2']));
test('two lines: a column stands at the end that it names', () => {
  const columns: readonly ListColumn<Book>[] = [
    { ...COLUMNS[0]!, endOf: 'first' },
    { ...COLUMNS[1]!, endOf: 'second' },
    COLUMNS[2]!,
  ];
  const view = { isDense: false, columns: ['name', 'number', 'copies'] };
  const { container } = render(<ListRow row={book} title={book.title} columns={columns} view={view} />);
  expect([...container.children].map((line) => line.textContent)).toEqual(['EelsReed, Ada', '639 REE2']);
});
test('one line: the columns in their order', () =>
  expect(shown(true, ['name', 'number', 'copies'])).toEqual(['EelsReed, Ada639 REE2']));
test('only the columns that are chosen', () => expect(shown(true, ['copies'])).toEqual(['Eels2']));
test('a dense row is lower', () =>
  expect(rowHeightOf({ isDense: true, columns: [] })).toBeLessThan(
    rowHeightOf({ isDense: false, columns: [] }),
  ));
