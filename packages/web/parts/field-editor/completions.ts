import { api, type CompletionRow } from '@osier/contract';
import { completionSource } from '@osier/core/editing';
import { completedField } from '@osier/core/headings';
import { isData, type DataField, type MarcRecord } from '@osier/core/marc';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { call } from '../../api/call';
import { useFormat } from '../format';
import type { Completion } from './CompletedInput';
import { fieldWords as wording } from './words';

/** Offers at once. */
const MOST = 10;
/** Milliseconds without a key after which the server is asked. */
const PAUSE = 120;

/** A value as it stood when nothing had changed it for a while. */
function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), PAUSE);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}

const withoutMarks = (text: string) => text.replace(/[\s,.;:/]+$/, '').trim();

/** What may complete a subfield; `asked` says whether anything ever does. */
export function useCompletions({
  tag,
  ind2,
  subject,
  fieldNow,
  record,
  code,
  value,
  onTaken,
  onHeading,
}: {
  tag: string;
  ind2: string;
  /** $2 of a subject field. */
  subject: string | undefined;
  /** The field as it is typed by now. */
  fieldNow: () => DataField;
  record: MarcRecord;
  code: string;
  value: string;
  onTaken: (value: string) => void;
  onHeading: (field: DataField) => void;
}): { readonly completions: readonly Completion[]; readonly asked: boolean } {
  const format = useFormat();
  const source = completionSource(tag, code);
  const typed = withoutMarks(value);
  const settled = useSettled(typed);
  const isRemote = source !== null && source.from !== 'codes';
  const query = {
    from: source?.from === 'used' ? source.term : ('heading' as const),
    tag,
    ind2,
    source: tag.startsWith('6') ? subject : undefined,
    q: settled,
  };
  const { data } = useQuery({
    queryKey: ['complete', query],
    queryFn: () => call(api.desk.complete, { query }),
    enabled: isRemote && settled.length >= 2,
    placeholderData: keepPreviousData,
    staleTime: 20_000,
  });
  if (source?.from === 'codes') {
    const words = typed.toLowerCase();
    const options = format?.codeOptions(source.list) ?? [];
    const found = words
      ? options.filter((o) => o.code === words || o.name.toLowerCase().startsWith(words))
      : [];
    return {
      asked: true,
      completions: found.slice(0, MOST).map(({ code: key, name }) => ({
        key,
        label: `${key}  ${name}`,
        take: () => onTaken(source.write === 'code' ? key : `${name.toLowerCase()}.`),
      })),
    };
  }
  const rows = isRemote && typed.length >= 2 ? (data?.rows ?? []) : [];
  return {
    asked: isRemote,
    completions: rows.map((row) => ({
      key: `${row.heading} ${row.text} ${row.via}`,
      label: labelOf(row),
      take: () => {
        const kept = row.kept;
        if (kept && isData(kept)) onHeading(completedField(fieldNow(), kept, record));
        else onTaken(row.text);
      },
    })),
  };
}

const labelOf = ({ text, via, records, isEstablished }: CompletionRow): string =>
  [
    text,
    via ? wording.seenFrom(via) : '',
    wording.inRecords(records),
    isEstablished ? '' : wording.unestablished,
  ]
    .filter(Boolean)
    .join(' · ');
