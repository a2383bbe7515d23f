import { lazy } from 'react';
import { useParams } from 'react-router';
import { useAddress } from '../../parts/use-address';

const Catalogue = lazy(() => import('./Catalogue'));
const Browse = lazy(() => import('./Browse'));
const Links = lazy(() => import('./Links'));
const AlikeRecords = lazy(() => import('./AlikeRecords'));

/** The Catalogue: searching, browsing and editing records, and those that may be one title. */
export default function CatalogueArea() {
  const [query] = useAddress();
  const { id } = useParams();
  if (!id && query.get('show') === 'browse') return <Browse />;
  if (!id && query.get('show') === 'links') return <Links />;
  return !id && query.get('show') === 'alike' ? <AlikeRecords /> : <Catalogue />;
}
