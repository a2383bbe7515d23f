// Articles: Library of Congress, "Initial Definite and Indefinite Articles"; titles are made up.
import { initialArticle, nonfilingCounts } from './initial-article';

test.each([
  ['The eels', 'eng', 'The '],
  ['A reed', 'eng', 'A '],
  ['An osier', 'eng', 'An '],
  ['Le saule', 'fre', 'Le '],
  ['L’osier', 'fre', 'L’'],
  ["L'osier", 'fre', "L'"],
  ['Une anguille', 'fre', 'Une '],
  ['Der Korb', 'ger', 'Der '],
  ['Eine Weide', 'ger', 'Eine '],
  ['El mimbre', 'spa', 'El '],
  ['Las cestas', 'spa', 'Las '],
  ['Il salice', 'ita', 'Il '],
  ['Gli intrecci', 'ita', 'Gli '],
  ["Un'anguilla", 'ita', "Un'"],
  ['Os cestos', 'por', 'Os '],
  ['De mand', 'dut', 'De '],
  ["'t Riet", 'dut', "'t "],
  ['Het net', 'dut', 'Het '],
  ['Den store kurv', 'dan', 'Den '],
  ['Ett rep', 'swe', 'Ett '],
  ['Et tau', 'nob', 'Et '],
  ['Y fasged', 'wel', 'Y '],
  ['Az angolna', 'hun', 'Az '],
  ['Els joncs', 'cat', 'Els '],
  ['An tobar', 'gle', 'An '],
])('%s in %s begins with “%s”', (title, language, article) =>
  expect(initialArticle(title, language)).toBe(article),
);

test.each([
  ['Theory of eels', 'eng'],
  ['Another eel', 'eng'],
  ['A to Z of eels', 'eng'],
  ['A.B. Reed’s notes', 'eng'],
  ['Le Havre in old maps', 'fre'],
  ['Los Angeles baskets', 'spa'],
  ['La Paz', 'spa'],
  ['El Greco', 'spa'],
  ['Die hard', 'ger'],
  ['Des Moines', 'eng'],
  ['The eels', 'ger'],
  ['Der Korb', 'eng'],
  ['The', 'eng'],
  ['', 'eng'],
  ['The eels', 'xxx'],
])('%s in %s begins with none', (title, language) => expect(initialArticle(title, language)).toBe(''));

test.each([
  ['The eels', 'eng', [4]],
  ['Eels', 'eng', [0]],
  ['“The eels”', 'eng', [5]],
  ["L'osier", 'fre', [2]],
])('%s in %s: nonfiling characters %p', (title, language, counts) => {
  const found = nonfilingCounts(title, language);
  expect(found[0]).toBe(counts[0]);
  for (const count of counts) expect(found).toContain(count);
});
