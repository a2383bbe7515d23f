import { api } from '@osier/contract';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { neighboursWords as wording } from './words';

/** A book of a list that a record is looked for. */
export interface ListBook {
  readonly list: number;
  readonly seq: number;
}

/** The book of a list that an address is about; null for none. */
export function listBookOf(list: string | null, book: string | null): ListBook | null {
  const [of, seq] = [Number(list ?? 0), Number(book ?? 0)];
  return of > 0 && seq > 0 ? { list: of, seq } : null;
}

/** Where something is looked for, on behalf of a book of a list or of none. */
export const lookupPath = (text: string, book: ListBook | null): string =>
  `/neighbours?text=${encodeURIComponent(text)}${book ? `&list=${book.list}&book=${book.seq}` : ''}`;

/** Says for which book of which list something is looked for. */
export function ForList({ book: { list, seq } }: { book: ListBook }) {
  const { data } = useApi(api.bookLists.read, { params: { id: list } });
  const row = data?.rows.find((r) => r.seq === seq);
  return (
    <p className="note">
      {wording.forBook(seq, row?.code ?? '')}{' '}
      <Link to={`/neighbours?show=many&list=${list}`}>{data?.name ?? wording.backToTheList}</Link>
    </p>
  );
}
