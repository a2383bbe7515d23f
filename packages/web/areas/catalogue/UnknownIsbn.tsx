import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { useMay } from '../../shell/person';
import { focusScanLine } from '../../shell/shortcuts';

/** What to do about a book whose ISBN no record has. */
export function UnknownIsbn({ isbn }: { isbn: string }) {
  const navigate = useNavigate();
  const mayLoad = useMay('take in deliveries');
  return (
    <div className="stack">
      <p>
        ISBN <span className="mono">{isbn}</span> is not in the catalogue. The title may be here without it,
        or with the number of another edition.
      </p>
      <div className="row">
        <Button
          onClick={() => {
            void navigate('/catalogue');
            focusScanLine();
          }}
        >
          Search by title
        </Button>
        {mayLoad ? (
          <Button onClick={() => void navigate('/deliveries')}>Load a file with its record</Button>
        ) : null}
      </div>
    </div>
  );
}
