import { look, setPositions, type Check } from '../finding';
import { inControl, textsIn, type RecordView } from '../view';

/** Where the form of item stands in 008 by type of record. */
const placeOfForm = (leader: string) => ('efgkor'.includes(leader[6]!) ? 29 : 23);

export const formAgainstDescription: Check = {
  rule: 'form-and-description',
  title: 'Form of item in 008 and description differ',
  group: 'Coded fields',
  source: 'MARC 21, 008 form of item; 300 $a; 338 (carrier type)',
  needs: ['300', '338'],
  run(view, tell) {
    const fixed = view.control('008');
    if (!fixed || fixed.value.length < 40) return;
    const at = placeOfForm(view.record.leader);
    const form = fixed.value[at]!;
    const wanted = formOfDescription(view);
    if (!wanted || form === wanted.code || '|'.includes(form) || (wanted.code === 'o' && 'sq'.includes(form)))
      return;
    tell({
      severity: 'warning',
      where: inControl('008', fixed.at, at, at + 1),
      message: `${wanted.said}, but 008/${at} (form of item) is ${form === ' ' ? 'blank' : `“${form}”`}.`,
      fix: look(`Put ${wanted.code} into 008/${at}`, setPositions('008', fixed, at, wanted.code)),
    });
  },
};

function formOfDescription(view: RecordView): { code: string; said: string } | null {
  const carriers = textsIn(view.tagged('338'), 'ab');
  if (carriers.length > 0 && carriers.every((c) => c === 'online resource' || c === 'cr'))
    return { code: 'o', said: 'The carrier is an online resource' };
  const extent = textsIn(view.tagged('300'), 'a');
  if (extent.length === 1 && /^(1 |one )?online resource/i.test(extent[0]!))
    return { code: 'o', said: '300 says online resource' };
  if (extent.length === 1 && /microfiche/i.test(extent[0]!))
    return { code: 'b', said: '300 says microfiche' };
  return null;
}
