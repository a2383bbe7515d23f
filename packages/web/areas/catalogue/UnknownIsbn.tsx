import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { useMay } from '../../shell/person';
import { focusScanLine } from '../../shell/shortcuts';
import { catalogueWords as wording } from './words';

/** What to do about a book whose ISBN no record has. */
export function UnknownIsbn({ isbn }: { isbn: string }) {
  const navigate = useNavigate();
  const mayEdit = useMay('edit records');
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
        {mayEdit ? (
          <>
            <Button onClick={() => void navigate(`/catalogue/brief?isbn=${isbn}`)}>
              {wording.enterItAsABriefRecord}
            </Button>
            <Button onClick={() => void navigate(`/catalogue/new?starter=book&isbn=${isbn}`)}>
              {wording.makeItsRecord}
            </Button>
          </>
        ) : null}
        {mayLoad ? (
          <Button type="primary" onClick={() => void navigate(`/neighbours?text=${isbn}`)}>
            {wording.lookAtTheNeighbours}
          </Button>
        ) : null}
        {mayLoad ? (
          <Button onClick={() => void navigate('/deliveries')}>{wording.loadAFileWithIts}</Button>
        ) : null}
      </div>
    </div>
  );
}
