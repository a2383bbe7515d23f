import { useNavigate } from 'react-router';
import { PageButtons } from '../../parts/PageButtons';
import { useAddress } from '../../parts/use-address';
import { catalogueWords as wording } from './words';

/** The pages of the Catalogue. */
export function CataloguePages() {
  const navigate = useNavigate();
  const [query] = useAddress();
  return (
    <PageButtons
      label={wording.show}
      pages={[
        ['search', wording.allRecords],
        ['alike', wording.lookAlikes],
      ]}
      chosen={query.get('show') === 'alike' ? 'alike' : 'search'}
      onChoose={(page) => void navigate(page === 'alike' ? '/catalogue?show=alike' : '/catalogue')}
    />
  );
}
