import { useNavigate } from 'react-router';
import { PageButtons } from '../../parts/PageButtons';
import { useAddress } from '../../parts/use-address';
import { catalogueWords as wording } from './words';

/** The pages of the Catalogue. */
export function CataloguePages() {
  const navigate = useNavigate();
  const [query] = useAddress();
  const shown = query.get('show');
  return (
    <PageButtons
      label={wording.show}
      pages={[
        ['search', wording.allRecords],
        ['browse', wording.browse],
        ['alike', wording.lookAlikes],
        ['links', wording.links],
      ]}
      chosen={shown === 'alike' || shown === 'links' || shown === 'browse' ? shown : 'search'}
      onChoose={(page) => void navigate(page === 'search' ? '/catalogue' : `/catalogue?show=${page}`)}
    />
  );
}
