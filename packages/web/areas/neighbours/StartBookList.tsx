import { CloseOutlined } from '@ant-design/icons';
import { api, bookListBody } from '@osier/contract';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { refreshAll } from '../../api/queries';
import { readKept, writeKept } from '../../parts/kept-state';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { useTyped } from '../../parts/form/use-typed';
import { ScanField } from '../../parts/ScanField';
import { neighboursWords as wording } from './words';

const KEPT = 'books to look for';

/** What was scanned and not sent, over a reload. */
function codesKept(): string[] {
  const kept = readKept(KEPT);
  return Array.isArray(kept) ? kept.filter((c): c is string => typeof c === 'string') : [];
}

/** Begins a list of books: a name, and their ISBNs by scanner, from the clipboard or a file. */
export function StartBookList({
  onStarted,
  onBack,
}: {
  onStarted: (list: number) => void;
  onBack: () => void;
}) {
  const [codes, setCodes] = useState(codesKept);
  const typed = useTyped<{ name: string; codes: string[] }>({
    initial: { name: '', codes: [] },
    schema: undefined,
  });
  const put = (next: (before: string[]) => string[]) =>
    setCodes((before) => {
      const after = next(before);
      writeKept(KEPT, after);
      return after;
    });
  const send = () =>
    typed.send(async ({ name }) => {
      const body = await bookListBody.validate({ name, codes }, { abortEarly: false });
      const begun = await call(api.bookLists.start, { body });
      writeKept(KEPT, null);
      await refreshAll();
      onStarted(begun.list);
    });
  return (
    <section className="stack" aria-label={wording.startAList}>
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <h2>{wording.startAList}</h2>
      <KitGrid>
        <KitField
          label={wording.nameOfTheList}
          help={wording.aNameSuchAs}
          isRequired
          problem={typed.problem('name')}
        >
          <Input value={typed.value.name} onChange={(e) => typed.set({ name: e.target.value })} />
        </KitField>
      </KitGrid>
      <ScanField
        label={wording.scanTheIsbns}
        name={wording.theList}
        takesFiles
        said={wording.scanned(codes.length)}
        onScan={(scanned) => put((before) => [...before, ...scanned])}
      />
      {typed.problem('codes') ? (
        <p role="alert" className="field-problem">
          {typed.problem('codes')}
        </p>
      ) : null}
      <div className="kit-bar">
        <Button type="primary" loading={typed.isSending} onClick={() => void send()}>
          {wording.lookForThem(codes.length)}
        </Button>
        {typed.refused ? <span role="alert">{typed.refused}</span> : null}
      </div>
      <ol className="scanned-books">
        {codes.map((code, i) => (
          <li key={i}>
            <span className="mono">{code}</span>
            <Button
              type="text"
              size="small"
              aria-label={wording.remove(code)}
              icon={<CloseOutlined />}
              onClick={() => put((before) => before.filter((_, k) => k !== i))}
            />
          </li>
        ))}
      </ol>
    </section>
  );
}
