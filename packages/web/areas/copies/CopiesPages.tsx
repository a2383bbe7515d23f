import { useNavigate } from 'react-router';
import { PageButtons } from '../../parts/PageButtons';
import { copiesWords as wording } from './words';

/** The pages of Copies. */
export function CopiesPages({ shown }: { shown: 'piles' | 'holdings' | 'all' }) {
  const navigate = useNavigate();
  return (
    <PageButtons
      label={wording.show}
      pages={[
        ['all', wording.allCopies],
        ['holdings', wording.holdings],
        ['piles', wording.piles],
      ]}
      chosen={shown}
      onChoose={(page) => void navigate(page === 'piles' ? '/copies' : `/copies/${page}`)}
    />
  );
}
