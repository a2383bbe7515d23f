import { Input } from 'antd';
import { useState } from 'react';
import { catalogueWords as wording } from './words';

/** What is searched for, to be changed and searched again. */
export function QueryLine({ q, onSearch }: { q: string; onSearch: (q: string) => void }) {
  const [typed, setTyped] = useState(q);
  return (
    <form
      className="query-line"
      onSubmit={(e) => {
        e.preventDefault();
        onSearch(typed.trim());
      }}
    >
      <Input
        aria-label={wording.searchedFor}
        value={typed}
        size="small"
        maxLength={500}
        autoComplete="off"
        spellCheck={false}
        allowClear
        onChange={(e) => setTyped(e.target.value)}
      />
    </form>
  );
}
