import { api, stocktakeBody, stretchBody } from '@osier/contract';
import { COPY_STATUSES } from '@osier/core/holdings';
import { SHELF_ORDERS } from '@osier/core/stocktake';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import type { FormField } from '../../parts/form/field-kinds';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useMyBranch } from '../../shell/my-branch';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { stocktakeWords as wording } from './words';
import { inWords } from '../../parts/format';

const SCHEMES = [
  { value: 'dewey', label: wording.dewey },
  { value: 'lc', label: wording.lc },
  { value: 'nlm', label: wording.nlm },
  { value: 'own', label: wording.ourOwn },
];
const ORDERS = SHELF_ORDERS.map((value) => ({ value, label: wording.shelfOrders[value] }));
const JUMPS = [
  { value: 'copies', label: wording.jumpCopies },
  { value: 'class', label: wording.jumpClass },
  { value: 'never', label: wording.jumpNever },
];
const STATUSES = COPY_STATUSES.map((s) => ({ code: s, name: s }));
/** What a location is asked for beside the others: its field's name begins so. */
const ORDER_OF = 'order ';

/** Chooses the stretch, and how it is walked; says what it holds before it is started. */
export function StartStocktake({ onClose }: { onClose: () => void }) {
  const setUp = useSetUp();
  const lists = setUp?.lists.value;
  const [branch] = useMyBranch();
  const { say } = useShell();
  const navigate = useNavigate();
  if (!setUp || !lists) return null;
  const asAbove = Object.fromEntries(lists.locations.map((l) => [ORDER_OF + l.code, '']));
  const here = (typed: Readonly<Record<string, unknown>>) => {
    const also: readonly unknown[] = Array.isArray(typed.also) ? typed.also : [];
    const branches = [typed.branch, ...also];
    return lists.locations.filter((l) => branches.includes(l.branch));
  };
  const chosenOf = (typed: Readonly<Record<string, unknown>>) => {
    const chosen: readonly unknown[] = Array.isArray(typed.locations) ? typed.locations : [];
    return here(typed).filter((l) => chosen.includes(l.code));
  };
  return (
    <SchemaForm
      takesFocus
      title={wording.aNewStocktake}
      schema={stocktakeBody}
      initial={{ branch, scheme: 'dewey', order: 'call', jumpWhen: 'copies', jumpBy: 20, ...asAbove }}
      fields={(typed): readonly FormField[] => [
        { name: 'name', label: wording.name, width: 'wide', placeholder: wording.millraceTextiles },
        {
          name: 'branch',
          label: wording.branch,
          kind: 'code',
          list: lists.branches,
          placeholder: wording.chooseABranch,
        },
        {
          name: 'also',
          label: wording.furtherBranches,
          kind: 'codes',
          placeholder: wording.noFurther,
          list: lists.branches.filter((b) => b.code !== typed.branch),
        },
        {
          name: 'locations',
          label: wording.locations,
          kind: 'codes',
          placeholder: wording.allLocations,
          list: here(typed),
        },
        {
          name: 'types',
          label: wording.types,
          kind: 'codes',
          placeholder: wording.allTypes,
          list: lists.types,
        },
        {
          name: 'leftOut',
          label: wording.leftOut,
          kind: 'codes',
          placeholder: wording.noneLeftOut,
          list: STATUSES,
        },
        { name: 'scheme', label: wording.scheme, kind: 'choice', options: SCHEMES },
        { name: 'from', label: wording.callNumberFrom, isMono: true, placeholder: wording.theBeginning },
        {
          name: 'to',
          label: wording.callNumberTo,
          isMono: true,
          placeholder: wording.theEnd,
          help: wording.includingAllThatBeginWith,
        },
        {
          name: 'seenSince',
          label: wording.countAsFoundIfSeen,
          kind: 'date',
          help: wording.copiesLastSeenOnOr,
        },
        { name: 'order', label: wording.shelfOrder, kind: 'choice', options: ORDERS },
        ...(chosenOf(typed).length > 1
          ? chosenOf(typed).map((l): FormField => ({
              name: ORDER_OF + l.code,
              label: wording.shelfOrderOf(l.name),
              kind: 'choice',
              options: [{ value: '', label: wording.asAbove }, ...ORDERS],
            }))
          : []),
        { name: 'jumpWhen', label: wording.jumpAlarm, kind: 'choice', options: JUMPS },
        ...(typed.jumpWhen === 'never'
          ? []
          : [
              {
                name: 'jumpBy',
                label: typed.jumpWhen === 'class' ? wording.jumpByClass : wording.jumpByCopies,
                kind: 'number' as const,
                min: 0.1,
                max: 10_000,
              },
            ]),
        {
          name: 'scanners',
          label: wording.whoMayScan,
          kind: 'codes',
          placeholder: wording.everybody,
          list: setUp.people.map((p) => ({ code: String(p.id), name: p.name })),
        },
      ]}
      // Locations are those of a branch.
      follow={(changed) =>
        'branch' in changed ? { locations: [], also: [] } : 'also' in changed ? { locations: [] } : {}
      }
      draft={{ key: 'new stocktake', title: wording.aNewStocktake, path: '/stocktake?start=1' }}
      verb={wording.startTheStocktake}
      below={(typed) => <StretchHolds typed={typed} />}
      onCancel={onClose}
      onSend={async (body) => {
        const orders = Object.entries(body).flatMap(([name, order]) => {
          const known = SHELF_ORDERS.find((o) => o === order);
          return name.startsWith(ORDER_OF) && known
            ? [{ location: name.slice(ORDER_OF.length), order: known }]
            : [];
        });
        const done = await call(api.stocktakes.start, {
          body: { ...stocktakeBody.cast(body, { stripUnknown: true }), orders },
        });
        say(done.sentence, done.entry);
        await refresh();
        void navigate(`/stocktake/${done.id}`);
      }}
    />
  );
}

/** How many copies the stretch that is typed holds, and which open stocktakes overlap it. */
function StretchHolds({ typed }: { typed: Readonly<Record<string, unknown>> }) {
  const stretch = stretchBody.isValidSync(typed) ? stretchBody.cast(typed, { stripUnknown: true }) : null;
  /** The stretch for which the loans desk was asked. */
  const [asked, setAsked] = useState('');
  const askLoans = asked !== '' && asked === JSON.stringify(stretch);
  const { data, isFetching } = useQuery({
    queryKey: ['/stocktakes/review', stretch, askLoans],
    queryFn: () => (stretch ? call(api.stocktakes.reviewStretch, { body: { ...stretch, askLoans } }) : null),
    enabled: stretch !== null && stretch.branch !== '',
    retry: false,
    placeholderData: (before) => before,
  });
  if (!data) return null;
  const others = Object.entries(data.statuses).map(([status, n]) => `${inWords(n)} ${status}`);
  return (
    <div className="note information" role="status">
      <p>
        <b>{wording.stretchHolds(inWords(data.expected), inWords(data.copies))}</b>{' '}
        {data.seenSince ? wording.seenAlready(inWords(data.seenSince)) : ''}{' '}
        {others.length ? wording.otherwise(others.join(', ')) : ''}{' '}
        {data.loans ? wording.loansNow(inWords(data.loans.onLoan), data.loans.notKnown) : wording.loansLater}{' '}
        {data.canAskLoans && !data.loans ? (
          <Button
            size="small"
            loading={askLoans && isFetching}
            onClick={() => setAsked(JSON.stringify(stretch))}
          >
            {wording.askLoansNow}
          </Button>
        ) : null}
      </p>
      {data.overlaps.map((o) => (
        <p key={o.id}>{wording.overlaps(o.name, inWords(o.copies))}</p>
      ))}
    </div>
  );
}
