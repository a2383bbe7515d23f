import { field } from '../../marc';
import { alikeVerdict } from '../../testing/alike-verdict';
import { alikeForms, gather, type Gathered } from '.';

/** "$aHolt, Anna,$d1950-" as a field's subfields. */
const subfields = (written: string): string[] =>
  written
    .split('$')
    .slice(1)
    .flatMap((s) => [s[0]!, s.slice(1)]);

test.each<[string, string, string, string]>([
  ['100', '$aJohn Paul$bII,$cPope,$d1920-2005', '$aJohn Paul$b2,$cPope,$d1920-2005', 'same'],
  ['100', '$aJohn Paul$bI,$cPope', '$aJohn Paul$bII,$cPope', 'different'],
  ['100', '$aOsric,$cof Wick,$d1100-1160', '$aOsric of Wick,$d1100-1160', 'perhaps'],
  ['100', '$aReedman, Amos,$d1880 March 3-', '$aReedman, Amos,$d1880 Mar. 03-', 'same'],
  ['100', '$aReedman, Amos,$d1880 March 3-', '$aReedman, Amos,$d3 March 1880-', 'same'],
  ['100', '$aReedman, Amos,$d1880 March-', '$aReedman, Amos,$d1880 March 3-', 'same'],
  ['100', '$aReedman, Amos,$d1880 March 3-', '$aReedman, Amos,$d1880 April 9-', 'different'],
  ['100', '$aReedman, Amos,$d1880 March 3-', '$aReedman, Amos,$d1880 March 4-', 'different'],
  ['100', '$aReedman, Amos$c(Chemist)', '$aReedman, Amos$c(Poet)', 'different'],
  ['100', '$aReedman, Amos$c(Chemist)', '$aReedman, Amos', 'perhaps'],
  ['100', '$aReedman, Amos$c(Chemist),$d1880-1950', '$aReedman, Amos,$d1880-1950', 'same'],
  ['1003', '$aHolt family', '$aHolt (Family)', 'same'],
  ['1003', '$aHolt (Family)', '$aHolt (Family :$cWick)', 'perhaps'],
  ['1003', '$aHolt (Family :$cWick)', '$aHolt (Family :$cHarrow)', 'different'],
  ['1003', '$aHolt (Clan)', '$aHolt (Royal house)', 'different'],
  ['110', '$aWick.$bPresident (1993-2001)', '$aWick.$bPresident (2001-2009)', 'different'],
  ['110', '$aWick.$bPresident (2001- : Holt)', '$aWick.$bPresident (2001-2009 : Holt)', 'same'],
  [
    '110',
    '$aWick Church.$bPope (1978 : John Paul I)',
    '$aWick Church.$bPope (1978-2005 : John Paul II)',
    'different',
  ],
  ['110', '$aWick Co-operative Bakery', '$aWick Cooperative Bakery', 'same'],
  ['110', '$aWick Rail-road Co.', '$aWick Railroad Company', 'perhaps'],
  ['110', '$aInstitute of Eels', '$aInstitute for Eels', 'perhaps'],
  ['110', '$aThe Institute of Eels', '$aInstitute of Eels', 'same'],
  ['110', '$aWick.$bArmy.$bInfantry Regiment, 3rd', '$aWick.$bArmy.$bInfantry Regiment, 3d', 'same'],
  ['110', '$aWick Studio 3D', '$aWick Studio 3rd', 'different'],
  ['110', '$aGrace Church (Springfield, Ill.)', '$aGrace Church (Springfield, Illinois)', 'same'],
  ['110', '$aGrace Church (Springfield, Ill.)', '$aGrace Church (Springfield, Mass.)', 'different'],
  ['110', '$aGrace Church (Wick, Eng.)', '$aGrace Church (Wick, England)', 'same'],
  [
    '111',
    '$aCongress of Eels$d(1980 :$cLondon, England)',
    '$aCongress of Eels$d(1980 :$cLondon, Ont.)',
    'perhaps',
  ],
  ['111', '$aCongress of Eels$d(1980-81 :$cWick)', '$aCongress of Eels$d(1980-1981 :$cWick)', 'same'],
  ['111', '$aCongress of Eels$d(1980 :$cWick)', '$aCongress of Eels$d(1980-1981 :$cWick)', 'perhaps'],
  ['111', '$aCongress of Eels$d(1980-1981 :$cWick)', '$aCongress of Eels$d(1981-1982 :$cWick)', 'different'],
  ['111', '$aThird Wick Conference$d(1980)', '$aWick Conference$n(3rd :$d1980)', 'same'],
  ['111', '$aThird Wick Conference$d(1980)', '$aWick Conference$n(4th :$d1980)', 'different'],
  ['111', '$aThe', '$aCongress of Eels', 'different'],
  ['111', '$aEel Symposium$d(1980 :$cWick)', '$aSymposium on Eels$d(1980 :$cWick)', 'perhaps'],
  ['130', '$aBible.$pN.T.$pMark', '$aBible.$pNew Testament.$pMark', 'same'],
  ['130', '$aBible.$pN.T.$pMark', '$aBible.$pMark', 'same'],
  ['130', '$aBible.$pN.T.', '$aBible.$pO.T.', 'different'],
  ['130', '$aEel times (Wick, Eng.)', '$aEel times (Wick, England)', 'same'],
  ['130', '$aEel times (Online)', '$aEel times (On-line)', 'same'],
  [
    '100',
    '$aHolt, Anna,$d1950-$tSymphonies,$nno. 1,$rC major',
    '$aHolt, Anna,$d1950-$tSymphonies,$nno. 1',
    'perhaps',
  ],
  [
    '100',
    '$aHolt, Anna,$d1950-$tSymphonies,$nno. 1,$rC major',
    '$aHolt, Anna,$d1950-$tSymphonies,$nno. 1,$rD major',
    'different',
  ],
  [
    '100',
    '$aHolt, Anna,$d1950-$tSonatas,$mpiano,$rC major',
    '$aHolt, Anna,$d1950-$tSonatas,$mpiano',
    'different',
  ],
  ['150', '$aEels$yTwentieth century', '$aEels$y20th century', 'same'],
  ['150', '$aEels$yTwenty-first century', '$aEels$y21st century', 'same'],
  ['150', '$aEels$yNineteenth century', '$aEels$y20th century', 'different'],
  ['150', '$aEel War, 1939-45', '$aEel War, 1939-1945', 'same'],
  ['150', '$aEels$y1939-45', '$aEels$y1939-1946', 'different'],
  ['148', '$aTwentieth century', '$a20th century', 'same'],
  ['151', '$aSt. Ives (Wick)', '$aSaint Ives (Wick)', 'same'],
  ['151', '$aMt. Harrow (N.Y.)', '$aMount Harrow (New York (State))', 'same'],
  ['151', '$aWick, England', '$aWick (England)', 'perhaps'],
  ['151', '$aWick (Eng.)', '$aWick (Scotland)', 'different'],
  ['150', '$aEels$zHarrow (Ill.)', '$aEels$zHarrow (Illinois)', 'same'],
])('%s %s and %s: %s', (tag, a, b, expected) => {
  const [x, y] = [subfields(a), subfields(b)];
  expect([alikeVerdict(tag, x, y), alikeVerdict(tag, y, x)]).toEqual([expected, expected]);
});

test('a family is none of its members', () => {
  const gathered: Gathered = { headings: new Map() };
  for (const first of ['3 ', '0 '])
    gather(gathered, {
      leader: '00000nz  a2200000n  4500',
      fields: [field('100', first, 'a', `Holt${first === '3 ' ? ' (Family)' : ''}`)],
    });
  expect(alikeForms(gathered)).toEqual([]);
});
