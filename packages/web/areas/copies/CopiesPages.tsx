import { useNavigate } from 'react-router';
import { PageButtons } from '../../parts/PageButtons';
import { copiesWords as wording } from './words';

/** The pages of Copies. */
export function CopiesPages({ shown }: { shown: 'piles' | 'all' }) {
  const navigate = useNavigate();
  return (
    <PageButtons
      label={wording.show}
      pages={[
        ['all', wording.allCopies],
        ['piles', wording.piles],
      ]}
      chosen={shown}
      onChoose={(page) => void navigate(page === 'all' ? '/copies/all' : '/copies')}
    />
  );
}
