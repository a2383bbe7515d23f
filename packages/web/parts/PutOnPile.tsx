import { api, type CopySearch, type SearchBody } from '@osier/contract';
import { call } from '../api/call';
import { counted } from '@osier/core/changes';
import { countedOn, type PiledKind } from '@osier/core/piles';
import { Button, Input, Modal, Select } from 'antd';
import { useState, type FormEvent } from 'react';
import { useApi } from '../api/queries';
import { problemText, RequestProblem } from '../api/request';
import { KitField } from './form/KitField';
import { PILE_OF } from './pile-of';
import { partWords as wording } from './words';

/** Puts all that a search finds on a pile: one that is there, or a new one. */
export function PutOnPile({
  search,
  copies,
  count,
  onDone,
  onClose,
}: {
  search?: SearchBody;
  /** The copies of a list instead. */
  copies?: CopySearch;
  count: number;
  /** Told when it has been begun. */
  onDone?: (() => void) | undefined;
  onClose: () => void;
}) {
  const { data: piles = [] } = useApi(api.piles.list);
  const [into, setInto] = useState<number | null>(null);
  const [name, setName] = useState('');
  const [of, setOf] = useState<PiledKind>(copies ? 'copy' : 'record');
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const [trouble, setTrouble] = useState('');
  const chosen = piles.find((p) => p.id === into);
  const isOfRecords = (chosen?.of ?? of) === 'record';
  const ofCopies = counted(count, 'copy', 'copies');
  const ofRecords = counted(count, 'record');
  const what = copies
    ? isOfRecords
      ? wording.theTitlesOf(ofCopies)
      : ofCopies
    : isOfRecords
      ? ofRecords
      : wording.theCopiesOf(ofRecords);
  const put = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await call(api.piles.fill, { body: { into, name, of, q: '', ...search, copies } });
      onDone?.();
      onClose();
    } catch (e) {
      const fields = e instanceof RequestProblem && e.problem.fields?.some((f) => f.field === 'name');
      setProblem(fields ? e : null);
      setTrouble(fields ? '' : problemText(e));
    }
  };
  return (
    <Modal open onCancel={onClose} footer={null} title={wording.addToPile} width={460} destroyOnHidden>
      <form onSubmit={(e) => void put(e)}>
        <KitField label={wording.pile}>
          <Select
            showSearch={{ optionFilterProp: 'label' }}
            value={into ?? 0}
            onChange={(id: number) => setInto(id || null)}
            options={[
              { value: 0, label: wording.newPile },
              ...piles.map((p) => ({
                value: p.id,
                label: `${p.name} (${countedOn(p.of, p.count)})`,
              })),
            ]}
          />
        </KitField>
        {into === null ? (
          <>
            <KitField label={wording.nameOfTheNewPile} isRequired problem={problem?.field('name')}>
              <Input autoFocus value={name} onChange={(e) => setName(e.target.value)} />
            </KitField>
            <KitField label={wording.aPileOf}>
              <Select value={of} options={[...PILE_OF]} onChange={setOf} />
            </KitField>
          </>
        ) : null}
        {trouble ? (
          <p className="field-problem" role="alert">
            {trouble}
          </p>
        ) : null}
        <div className="kit-bar">
          <Button type="primary" htmlType="submit">
            {wording.addTo(what, chosen ? `“${chosen.name}”` : wording.theNewPile)}
          </Button>
          <Button onClick={onClose}>{wording.cancel}</Button>
        </div>
      </form>
    </Modal>
  );
}
