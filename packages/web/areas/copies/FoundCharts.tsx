import { api, copySearchBody, type CopyCharts } from '@osier/contract';
import { narrowedQuery } from '@osier/core/find';
import { useQuery } from '@tanstack/react-query';
import { BarChartOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { problemText } from '../../api/request';
import { BarTable } from '../../parts/BarTable';
import { OverviewSection } from '../../parts/Overview';
import type { CopyFilterValues } from './CopyFilters';
import { copiesWords as wording } from './words';

/** More classes than this are shown by hundreds. */
const MOST_CLASSES = 20;

/** How the copies that are found are spread over classes, years and statuses, once it is asked for. */
export function FoundCharts({ values }: { values: CopyFilterValues }) {
  const [isAsked, setAsked] = useState(false);
  const { copies: _, ...search } = copySearchBody.cast(values);
  const charts = useQuery({
    queryKey: ['/copies/charts', values],
    enabled: isAsked,
    queryFn: () => call(api.copyLists.charts, { query: search }),
  });
  if (!isAsked)
    return (
      <OverviewSection title={wording.whatIsFound}>
        <Button icon={<BarChartOutlined />} data-key="h" onClick={() => setAsked(true)}>
          {wording.chartsOfFound}
        </Button>
      </OverviewSection>
    );
  if (charts.error) return <p role="alert">{problemText(charts.error)}</p>;
  const { data } = charts;
  if (!data) return <p className="faded">{wording.counting}</p>;
  return (
    <>
      <OverviewSection title={wording.foundByClass}>
        <BarTable
          caption={wording.foundByClass}
          of={wording.copies}
          rows={classRows(data.classes).map(({ value, name, n }) => ({
            ...{ key: value, name, n },
            to: wayTo(values, classPlace(value)),
          }))}
        />
      </OverviewSection>
      {data.decades.some((d) => d.value !== '') ? (
        <OverviewSection title={wording.foundByYear}>
          <BarTable
            caption={wording.foundByYear}
            of={wording.copies}
            rows={data.decades.map(({ value, n }) => ({
              ...{ key: value, name: value ? wording.decadeOf(value) : wording.yearNotKnown, n },
              ...(value && {
                to: wayTo(values, {
                  q: narrowedQuery(values.q ?? '', 'year', 'within', `${value}0 ${value}9`),
                }),
              }),
            }))}
          />
        </OverviewSection>
      ) : null}
      <OverviewSection title={wording.foundByStatus}>
        <BarTable
          caption={wording.foundByStatus}
          of={wording.copies}
          rows={data.statuses.map(({ value, n }) => ({
            ...{ key: value, name: value, n },
            to: wayTo(values, { status: value }),
          }))}
        />
      </OverviewSection>
    </>
  );
}

type ClassCount = CopyCharts['classes'][number];

/** Classes by tens, or by hundreds where there are many; each with its name. */
function classRows(classes: readonly ClassCount[]): readonly (ClassCount & { readonly name: string })[] {
  const isMany = classes.length > MOST_CLASSES;
  const counts = new Map<string, number>();
  for (const { value, n } of classes) {
    const at = isMany && /^\d\d$/.test(value) ? value.slice(0, 1) : value;
    counts.set(at, (counts.get(at) ?? 0) + n);
  }
  return [...counts].map(([value, n]) => ({ value, n, name: className(value) }));
}

const className = (value: string): string => {
  if (value === '~') return wording.unread;
  const [from, to] = deweySpan(value);
  return from ? `${from}–${to}` : value || wording.noClass;
};

/** The first and last class of three digits that begin so; none for what is no Dewey number. */
const deweySpan = (value: string): readonly [string, string] | readonly [] =>
  /^\d{1,2}$/.test(value) ? [value.padEnd(3, '0'), value.padEnd(3, '9')] : [];

/** What narrows the list to a class. */
function classPlace(value: string): CopyFilterValues {
  if (value === '~') return { unread: 'yes' };
  const [from, to] = deweySpan(value);
  return from ? { numberFrom: from, numberTo: to, scheme: undefined } : {};
}

const wayTo = (values: CopyFilterValues, more: CopyFilterValues): string | undefined => {
  if (Object.keys(more).length === 0) return undefined;
  const address = new URLSearchParams();
  for (const [name, value] of Object.entries({ ...values, ...more })) if (value) address.set(name, value);
  return `/copies/all?${address.toString()}`;
};
