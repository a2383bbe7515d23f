import { api, type Review } from '@osier/contract';
import { UploadOutlined } from '@ant-design/icons';
import { Button, Modal } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { problemText } from '../../api/request';
import { BatchSheet, type BatchAct } from '../../parts/BatchSheet';
import { DropZone } from '../../parts/DropZone';
import { withdrawalsWords as wording } from './words';

/** Takes the loans desk's table of how often copies were lent; what it changes is reviewed before it is loaded. */
export function LoadLoanFigures() {
  const [isOpen, setOpen] = useState(false);
  const [problem, setProblem] = useState('');
  const [batch, setBatch] = useState<BatchAct | null>(null);
  const take = async ([sent, ...more]: readonly File[]) => {
    setProblem(more.length ? wording.oneTable : '');
    if (!sent || more.length) return;
    try {
      const { file } = await call(api.loanFigures.send, { body: sent });
      const body = { file, name: sent.name };
      const page = (from: number) => call(api.loanFigures.review, { body: { ...body, from } });
      // A table that cannot be read is told here, where another can be chosen.
      let first: Review | null = await page(0);
      setOpen(false);
      setBatch({
        key: ['loan figures', file],
        review: (from) => {
          const known = from === 0 ? first : null;
          first = null;
          return known ? Promise.resolve(known) : page(from);
        },
        begin: (leaveOut, token) => call(api.loanFigures.load, { body: { ...body, leaveOut, token } }),
      });
    } catch (e) {
      setProblem(`${sent.name}: ${problemText(e)}`);
    }
  };
  return (
    <>
      <Button data-key="o" icon={<UploadOutlined />} onClick={() => setOpen(true)}>
        {wording.loadLoanFigures}
      </Button>
      <Modal
        open={isOpen}
        onCancel={() => setOpen(false)}
        footer={null}
        title={wording.loadLoanFigures}
        destroyOnHidden
      >
        <div className="stack">
          <p>{wording.whatLoanFiguresAre}</p>
          <DropZone
            label={wording.dropTheTable}
            accept=".csv,.tsv,.txt,text/csv,text/plain"
            onFiles={(files) => void take(files)}
          />
          {problem ? (
            <p role="alert" className="note stop">
              {problem}
            </p>
          ) : null}
        </div>
      </Modal>
      {batch ? (
        <BatchSheet title={wording.loadLoanFigures} batch={batch} onClose={() => setBatch(null)} />
      ) : null}
    </>
  );
}
