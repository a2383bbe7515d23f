import { api } from '@osier/contract';
import { lazy } from 'react';
import { useParams } from 'react-router';
import { useReadAhead } from '../../api/queries';
import { useAddress } from '../../parts/use-address';

const Catalogue = lazy(() => import('./Catalogue'));
const Browse = lazy(() => import('./Browse'));
const Links = lazy(() => import('./Links'));
const AlikeRecords = lazy(() => import('./AlikeRecords'));

/** Asks for a record before the page that shows it has been drawn. */
function RecordAhead({ id }: { id: number }) {
  useReadAhead(api.records.read, { params: { id } });
  return null;
}

/** The Catalogue: searching, browsing and editing records, and those that may be one title. */
export default function CatalogueArea() {
  const [query] = useAddress();
  const { id } = useParams();
  if (!id && query.get('show') === 'browse') return <Browse />;
  if (!id && query.get('show') === 'links') return <Links />;
  if (!id && query.get('show') === 'alike') return <AlikeRecords />;
  return (
    <>
      {Number(id) > 0 ? <RecordAhead id={Number(id)} /> : null}
      <Catalogue />
    </>
  );
}
