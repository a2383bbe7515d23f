import { api, filledPath } from '@osier/contract';
import { call } from '../api/call';
import { AutoComplete, Input, type InputRef } from 'antd';
import { useCallback, useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { problemText } from '../api/request';
import { usePerson } from './person';
import { keepInput, recentInputs } from './recent-inputs';
import { useScanTarget } from './scan-target';
import { useShell } from './shell-store';
import { useSuggestions, type ScanChoice } from './suggestions';
import { useScanner } from './use-scanner';
import { shellWords as wording } from './words';

/** The one input at the top that takes any scan or search, says what it took it for, and goes to the thing. */
export function ScanLine() {
  const [text, setText] = useState('');
  const [said, setSaid] = useState('');
  const input = useRef<InputRef>(null);
  const waiting = useScanTarget((s) => s.name);
  const navigate = useNavigate();
  const complain = useShell((s) => s.complain);
  const person = usePerson().id;
  const [isOpen, setOpen] = useState(false);
  /** Whether the arrow keys have gone into the list. */
  const arrowed = useRef(false);
  const suggested = useSuggestions(isOpen ? text : '');

  const go = useCallback(
    async (q: string) => {
      if (!q.trim()) return;
      setText(q);
      setOpen(false);
      keepInput(person, q.trim());
      try {
        const found = await call(api.records.lookUp, { query: { q } });
        setSaid(found.said);
        if (found.as === 'record')
          void navigate(`/catalogue/${found.id}${found.copy ? `?copy=${found.copy}` : ''}`);
        else if (found.as === 'heading') void navigate(`/headings/${found.id}`);
        else if (found.as === 'list') void navigate(filledPath('/catalogue', {}, { q: found.q }));
        else {
          // What is not here has ways on of its own, where it would be listed.
          if (found.as === 'unknown') void navigate(filledPath('/catalogue', {}, { q: found.q }));
          complain(found.said);
        }
      } catch (error) {
        complain(problemText(error));
      }
    },
    [navigate, complain, person],
  );
  useScanner(useCallback((code: string) => void go(code), [go]));

  const choices: readonly ScanChoice[] = !isOpen
    ? []
    : text.trim() === ''
      ? recentInputs(person).map((q) => ({
          key: `input ${q}`,
          what: wording.lastInput,
          text: q,
          more: '',
          to: null,
        }))
      : suggested;
  const choose = (choice: ScanChoice | undefined) => {
    setOpen(false);
    if (!choice) return;
    if (choice.to === null) return void go(choice.text);
    setText('');
    setSaid(`${choice.what}: ${choice.text}`);
    void navigate(choice.to);
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      // A choice that the arrow keys went to is taken by the list itself.
      if (isOpen && arrowed.current) return;
      void go(text);
      input.current?.select();
    } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      arrowed.current = isOpen && choices.length > 0;
      setOpen(true);
    } else if (event.key === 'Escape') {
      if (isOpen && choices.length > 0) return setOpen(false);
      setText('');
      setSaid('');
      input.current?.blur();
    }
  };
  return (
    <div className="scan-line" role="search">
      <label className="unseen" htmlFor="scan-line">
        {wording.scanOrSearch}
      </label>
      <AutoComplete
        id="scan-line"
        className="scan-input"
        value={text}
        open={isOpen && choices.length > 0}
        onOpenChange={(open) => !open && setOpen(false)}
        defaultActiveFirstOption={false}
        options={choices.map((c) => ({ value: c.key, label: <Choice choice={c} /> }))}
        onSelect={(key: string) => choose(choices.find((c) => c.key === key))}
        onChange={(value: string) => {
          if (choices.some((c) => c.key === value)) return;
          arrowed.current = false;
          setText(value);
          setOpen(true);
        }}
        onKeyDown={onKey}
        onBlur={() => setOpen(false)}
      >
        <Input
          ref={input}
          data-takes-codes="scan"
          autoComplete="off"
          spellCheck={false}
          placeholder={wording.scanOrTypeBarcodeIsbn}
        />
      </AutoComplete>
      <span className="scan-said" role="status">
        {waiting ? wording.scansGoTo(waiting) : said}
      </span>
    </div>
  );
}

const Choice = ({ choice: { what, text, more } }: { choice: ScanChoice }) => (
  <span className="scan-choice">
    <span className="faded">{what}</span>
    <bdi>{text}</bdi>
    <span className="faded">{more}</span>
  </span>
);
