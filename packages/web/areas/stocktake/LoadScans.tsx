import { api, type StocktakeDetail } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { locationsOf } from '@osier/core/stocktake';
import { Button } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { CodePicker } from '../../parts/CodePicker';
import { DropZone } from '../../parts/DropZone';
import { KitField } from '../../parts/form/KitField';
import { ScanField } from '../../parts/ScanField';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { stocktakeWords as wording } from './words';

const DateField = lazy(() => import('../../parts/form/DateField'));

/** Scans into a stocktake: one after the other, or the file of a hand scanner with its day and location. */
export function LoadScans({ stocktake: s }: { stocktake: StocktakeDetail }) {
  const { stretch, name } = s.stocktake;
  const lists = useSetUp()?.lists.value;
  const places = locationsOf(stretch, lists?.locations ?? []);
  const [on, setOn] = useState('');
  const [location, setLocation] = useState('');
  const [said, setSaid] = useState('');
  const [twice, setTwice] = useState<{ readonly file: File; readonly why: string } | null>(null);
  const { complain } = useShell();
  const params = { id: s.id };
  const load = async (file: File, again = false) => {
    setTwice(null);
    try {
      const query = { name: file.name, on, location, again: again ? 'yes' : '' };
      await call(api.stocktakes.loadFile, { params, query, body: file });
    } catch (e) {
      if (e instanceof RequestProblem && e.problem.fields?.some((f) => f.field === 'again'))
        setTwice({ file, why: e.message });
      else complain(problemText(e));
    }
  };
  const scan = async (codes: string[]) => {
    setSaid(codes.map(groupedBarcode).join(', '));
    try {
      await call(api.stocktakes.scan, { params, body: { codes } });
      void refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="load-row">
      <ScanField label={wording.scan} name={name} said={said} onScan={scan} />
      <div className="load-file">
        <DropZone
          label={wording.orDropAScannersFile}
          accept=".txt,.csv,.tsv,.dat,text/plain,text/csv"
          onFiles={(files) => files.forEach((f) => void load(f))}
        />
        <div className="row">
          <KitField label={wording.dayOfTheWalk}>
            <Suspense fallback={null}>
              <DateField value={on} onChange={setOn} />
            </Suspense>
          </KitField>
          {places.length > 1 ? (
            <KitField label={wording.locationWalked}>
              <CodePicker
                list={places}
                value={location}
                onChange={setLocation}
                placeholder={wording.allOfTheStretch}
                optional
              />
            </KitField>
          ) : null}
        </div>
      </div>
      {twice ? (
        <p className="note caution" role="alert">
          {twice.why}{' '}
          <Button size="small" onClick={() => void load(twice.file, true)}>
            {wording.sameScansLoaded}
          </Button>
        </p>
      ) : null}
    </div>
  );
}
