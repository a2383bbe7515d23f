import { api } from '@osier/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { refreshAll, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { useShell } from '../../shell/shell-store';
import { LinkFound } from './LinkFound';
import { catalogueWords as wording } from './words';

/** The web addresses of a record as it is saved, each with what was found when it was tried last. */
export function LinksOfRecord({ id, mayTry }: { id: number; mayTry: boolean }) {
  const { data } = useApi(api.links.ofRecord, { params: { id } });
  const [isTrying, setTrying] = useState(false);
  const { complain } = useShell();
  const tryNow = async () => {
    setTrying(true);
    try {
      await call(api.links.tryRecord, { params: { id } });
      await refreshAll();
    } catch (e) {
      complain(problemText(e));
    }
    setTrying(false);
  };
  if (!data?.rows.length) return null;
  return (
    <section aria-label={wording.links}>
      <div className="row spread">
        <h3>{wording.links}</h3>
        {mayTry ? (
          <Button size="small" data-key="y" loading={isTrying} onClick={() => void tryNow()}>
            {isTrying ? wording.tryingLinks : wording.tryLinks}
          </Button>
        ) : null}
      </div>
      <ul className="links">
        {data.rows.map((l) => (
          <li key={l.url}>
            <a href={l.url} target="_blank" rel="noreferrer noopener">
              {l.text || l.url}
            </a>
            <LinkFound found={l.found} />
          </li>
        ))}
      </ul>
    </section>
  );
}
