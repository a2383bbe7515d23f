import { type Check } from '../finding';
import { inLeader, textsIn } from '../view';

/** Types of record that go with a content type (336; RDA content types mapped by leader/06 of the MARC 21 documentation). */
const TYPES: Record<string, string> = {
  txt: 'ati',
  text: 'ati',
  'spoken word': 'ijg',
  spw: 'ijg',
  'performed music': 'jg',
  prm: 'jg',
  'notated music': 'cd',
  ntm: 'cd',
  'two-dimensional moving image': 'g',
  tdi: 'g',
  'cartographic image': 'ef',
  cri: 'ef',
  'computer program': 'm',
  cop: 'm',
};

export const typeAgainstContent: Check = {
  rule: 'type-and-content',
  title: 'Type of record and content type differ',
  group: 'Coded fields',
  source: 'MARC 21, leader/06 and 336',
  needs: ['336'],
  run(view, tell) {
    const type = view.record.leader[6]!;
    const contents = textsIn(view.tagged('336'), 'ab');
    const known = contents.filter((c) => TYPES[c] !== undefined);
    if (known.length === 0 || known.length < contents.length || known.some((c) => TYPES[c]!.includes(type)))
      return;
    if ('opmrk'.includes(type)) return;
    tell({
      severity: 'warning',
      where: inLeader(6, 7),
      message: `The content is “${known[0]}”, but leader/06 (type of record) is ${type}.`,
    });
  },
};
