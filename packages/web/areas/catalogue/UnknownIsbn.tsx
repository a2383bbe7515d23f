import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { useMay } from '../../shell/person';
import { focusScanLine } from '../../shell/shortcuts';
import { catalogueWords as wording } from './words';

/** What to do about a book whose ISBN no record has. */
export function UnknownIsbn({ isbn }: { isbn: string }) {
  const navigate = useNavigate();
  const mayLoad = useMay('take in deliveries');
  return (
    <div className="stack">
      <p>
        {wording.isbn} <span className="mono">{isbn}</span> {wording.isNotInTheCatalogue}
      </p>
      <div className="row">
        <Button
          onClick={() => {
            void navigate('/catalogue');
            focusScanLine();
          }}
        >
          {wording.searchByTitle}
        </Button>
        {mayLoad ? (
          <Button onClick={() => void navigate('/deliveries')}>{wording.loadAFileWithIts}</Button>
        ) : null}
      </div>
    </div>
  );
}
