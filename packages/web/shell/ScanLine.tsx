import { api, filledPath } from '@osier/contract';
import { call } from '../api/call';
import { useCallback, useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { problemText } from '../api/request';
import { useScanTarget } from './scan-target';
import { useShell } from './shell-store';
import { useScanner } from './use-scanner';

/** The one input at the top that takes any scan or search, says what it took it for, and goes to the thing. */
export function ScanLine() {
  const [text, setText] = useState('');
  const [said, setSaid] = useState('');
  const input = useRef<HTMLInputElement>(null);
  const waiting = useScanTarget((s) => s.name);
  const navigate = useNavigate();
  const complain = useShell((s) => s.complain);

  const go = useCallback(
    async (q: string) => {
      if (!q.trim()) return;
      setText(q);
      try {
        const found = await call(api.records.lookUp, { query: { q } });
        setSaid(found.said);
        if (found.as === 'record')
          void navigate(`/catalogue/${found.id}${found.copy ? `?copy=${found.copy}` : ''}`);
        else if (found.as === 'heading') void navigate(`/headings/${found.id}`);
        else if (found.as === 'list') void navigate(filledPath('/catalogue', {}, { q: found.q }));
        else complain(found.said);
      } catch (error) {
        complain(problemText(error));
      }
    },
    [navigate, complain],
  );
  useScanner(useCallback((code: string) => void go(code), [go]));

  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      void go(text);
      input.current?.select();
    } else if (event.key === 'Escape') {
      setText('');
      setSaid('');
      input.current?.blur();
    }
  };
  return (
    <div className="scan-line" role="search">
      <label className="unseen" htmlFor="scan-line">
        Scan or search
      </label>
      <input
        id="scan-line"
        data-takes-codes="scan"
        ref={input}
        value={text}
        autoComplete="off"
        spellCheck={false}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={onKey}
        placeholder="Scan or type: barcode, ISBN, record number, call number, words   ( / )"
      />
      <span className="scan-said" role="status">
        {waiting ? `Scans go to: ${waiting}` : said}
      </span>
    </div>
  );
}
