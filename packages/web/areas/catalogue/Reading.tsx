import type { RecordDetail } from '@osier/contract';
import type { MarcRecord } from '@osier/core/marc';
import { readingOf, type Read } from '@osier/core/reading';
import { Fragment } from 'react';
import { Link } from 'react-router';
import { readingParts } from './reading-words';

/** A record as it is read beside the book in hand, in large type; names, subjects, series and classes lead on. */
export function Reading({ record, headings }: { record: MarcRecord; headings: RecordDetail['headings'] }) {
  const parts = readingOf(record);
  const pathOf = ({ headings: said = [], words }: Read): string | null => {
    const [known] = said.flatMap((one) => headings.find((h) => `${h.kind} ${h.key}` === one) ?? []);
    if (known) return `/catalogue?q=${encodeURIComponent(`heading ${known.id}`)}`;
    return words ? `/catalogue?q=${encodeURIComponent(words)}` : null;
  };
  return (
    <dl className="reading">
      {parts.map(({ part, read }) => (
        <Fragment key={part}>
          <dt>{readingParts[part]}</dt>
          <dd>
            {read.map((r, i) => {
              const path = pathOf(r);
              return (
                <div key={i}>
                  {r.address ? (
                    <a href={r.address} target="_blank" rel="noreferrer noopener">
                      {r.text}
                    </a>
                  ) : path ? (
                    <Link to={path}>
                      <bdi>{r.text}</bdi>
                    </Link>
                  ) : (
                    <bdi>{r.text}</bdi>
                  )}
                  {r.original ? (
                    <div dir="auto" className="original">
                      {r.original}
                    </div>
                  ) : null}
                </div>
              );
            })}
          </dd>
        </Fragment>
      ))}
    </dl>
  );
}
