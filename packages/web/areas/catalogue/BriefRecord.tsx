import { api, BRIEF_STATUSES, briefBody, type AlikeRow } from '@osier/contract';
import { readIsbn } from '@osier/core/access';
import { briefRecord } from '@osier/core/editing';
import { codeOptions } from '@osier/core/format';
import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import type { InferType } from 'yup';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { RequestProblem } from '../../api/request';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useDrafts } from '../../shell/drafts';
import { useMyBranch } from '../../shell/my-branch';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { SaveCheck } from './SaveCheck';
import { shelfWords } from './shelf/words';
import './record.css';
import { catalogueWords as wording } from './words';

type Typed = InferType<typeof briefBody>;
const LANGUAGES = codeOptions('languages');
const KEPT = 'osier-brief';
const DRAFT = 'brief record';

/** What the books that are entered one after the other have in common. */
type Common = Partial<Pick<Typed, 'branch' | 'location' | 'type' | 'status' | 'language'>>;
function lastCommon(): Common {
  const kept = new URLSearchParams(localStorage.getItem(KEPT) ?? '');
  const [branch, location, type, language] = ['branch', 'location', 'type', 'language'].map(
    (name) => kept.get(name) ?? undefined,
  );
  return { branch, location, type, language, status: BRIEF_STATUSES.find((s) => s === kept.get('status')) };
}

/** Enters a book with the little that is known of it, by scanner and keyboard, ready for the next one. */
export function BriefRecord({
  isbn,
  barcode,
  onBack,
}: {
  isbn: string;
  barcode: string;
  onBack: () => void;
}) {
  const lists = useSetUp()?.lists.value;
  const [mine] = useMyBranch();
  const { say } = useShell();
  /** A new form for each book; what books have in common stays. */
  const [n, setN] = useState(0);
  /** A barcode that was refused and may be used all the same; scanning it once more does not mean that, a tick does. */
  const [refused, setRefused] = useState('');
  const [keep, setKeep] = useState(false);
  const [asking, setAsking] = useState<{ typed: Typed; alike: readonly AlikeRow[] } | null>(null);
  if (!lists) return null;
  const common = lastCommon();
  const branch = mine || common.branch || '';
  const initial = {
    isbn: n === 0 ? isbn : '',
    barcode: n === 0 ? barcode : '',
    status: common.status ?? 'available',
    branch,
    location: branch === common.branch ? (common.location ?? '') : '',
    type: common.type ?? lists.types[0]?.code ?? '',
    price: null,
    currency: '',
    language: common.language ?? 'eng',
  };
  const make = async (typed: Typed, despite: readonly number[]) => {
    const keepBarcode = keep && typed.barcode === refused;
    const done = await call(api.desk.makeBrief, { body: { ...typed, keepBarcode, despite } }).catch(
      (e: unknown) => {
        if (e instanceof RequestProblem && e.isOverrulable) setRefused(typed.barcode);
        throw e;
      },
    );
    setRefused('');
    setKeep(false);
    const { branch: at, location, type, status, language } = typed;
    localStorage.setItem(
      KEPT,
      new URLSearchParams({ branch: at, location, type, status, language }).toString(),
    );
    say(done.sentence, done.entry);
    setAsking(null);
    // The next form begins empty.
    useDrafts.getState().keepForm(DRAFT, null);
    setN((before) => before + 1);
    await refresh();
  };
  const send = async (typed: Typed) => {
    const marc = briefRecord(
      { ...typed, isbn: readIsbn(typed.isbn)?.isbn13 ?? '' },
      new Date().toISOString().slice(0, 10),
    );
    const { rows } = await call(api.desk.likely, { body: { marc } });
    if (rows.length === 0) return make(typed, []);
    setAsking({ typed, alike: rows });
    return false;
  };
  return (
    <div className="stack record-piece">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <h2>{wording.briefRecord}</h2>
      <p className="faded">{wording.whatABriefRecordIs}</p>
      {asking ? (
        <SaveCheck
          alike={asking.alike}
          problems={[]}
          onCancel={() => setAsking(null)}
          onSave={() =>
            void make(
              asking.typed,
              asking.alike.map((a) => a.record),
            ).catch((e: unknown) => useShell.getState().complain(String(e instanceof Error ? e.message : e)))
          }
        />
      ) : null}
      <SchemaForm
        key={n}
        schema={briefBody}
        takesFocus
        initial={initial}
        verb={wording.addBriefRecord}
        draft={{ key: DRAFT, title: wording.briefRecord, path: '/catalogue/brief' }}
        scans={{
          name: wording.theBriefRecord,
          fill: (code) => (readIsbn(code)?.isbn13 ? { isbn: code } : { barcode: code }),
          next: ({ title, class: cls, barcode }) =>
            !title ? 'title' : !cls ? 'class' : !barcode ? 'barcode' : null,
        }}
        follow={(changed) => ('branch' in changed ? { location: '' } : {})}
        fields={(typed) => [
          { name: 'isbn', label: wording.isbn, isMono: true, help: wording.scanOrType },
          { name: 'title', label: wording.title, width: 'wide' },
          { name: 'name', label: wording.name, help: wording.surnameFirst },
          { name: 'year', label: wording.year, width: 'short', isMono: true },
          { name: 'language', label: wording.language, kind: 'code', list: LANGUAGES },
          { name: 'class', label: wording.class, width: 'short', isMono: true },
          { name: 'branch', label: wording.branch, kind: 'code', list: lists.branches },
          {
            name: 'location',
            label: wording.location,
            kind: 'code',
            list: lists.locations.filter((l) => l.branch === typed.branch),
          },
          { name: 'type', label: wording.type, kind: 'code', list: lists.types },
          { name: 'price', label: wording.price, kind: 'price', currency: 'currency' },
          {
            name: 'status',
            label: wording.status,
            kind: 'choice',
            options: BRIEF_STATUSES.map((value) => ({ value, label: value })),
          },
          { name: 'barcode', label: wording.barcode, isMono: true, help: wording.theLastScanSaves },
        ]}
        below={({ barcode }) =>
          refused && barcode === refused ? (
            <Checkbox checked={keep} onChange={(e) => setKeep(e.target.checked)}>
              {shelfWords.useThisBarcodeAnyway}
            </Checkbox>
          ) : null
        }
        onSend={send}
      />
    </div>
  );
}
