import { api, type Today as TodayAnswer } from '@osier/contract';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { AreaHead } from '../../parts/AreaHead';
import { Mark } from '../../parts/Mark';
import { when } from '../../parts/when';
import { Overview, OverviewSection } from '../../parts/Overview';
import { CountedSearches } from '../../parts/searches/CountedSearches';
import { LOANS_DESK } from '../../shell/loans-desk';
import { unsavedWork, useDrafts } from '../../shell/drafts';
import { usePerson } from '../../shell/person';
import { EntryLine } from '../daybook/EntryLine';
import { FrequentFindings } from '../catalogue/FrequentFindings';
import { BranchTable } from './BranchTable';
import { FirstSteps } from './FirstSteps';
import { QuickActs } from './QuickActs';
import './today.css';
import { useToday } from './use-today';
import { todayWords as wording } from './words';

const FINDINGS = 8;
const number = (n: number) => n.toLocaleString('en-GB');

/** The opening area: what waits, what can be begun, what was done last, and how the library stands. */
export default function Today() {
  const { data } = useToday();
  const person = usePerson();
  const unsaved = unsavedWork(useDrafts());
  const outside = useApi(api.overview.outside).data;
  const desk = outside && LOANS_DESK[outside.loansDesk];
  if (!data) return <AreaHead name={wording.today} state="…" />;
  const waits = waitingIn(data, person.id);
  return (
    <>
      <AreaHead
        name={wording.today}
        state={`Good day, ${person.name.split(' ')[0]}. ${number(data.records)} records, ${number(data.copies)} copies, ${number(data.headings)} headings.`}
      />
      <div className="today">
        <Overview isWide>
          <OverviewSection title={wording.waiting}>
            {waits.length === 0 ? (
              <p className="faded">
                {wording.nothingIsWaitingLoadA} <Link to="/deliveries">{wording.deliveries}</Link>
                {wording.orScanSomethingAtThe}
              </p>
            ) : null}
            {waits.length ? (
              <ul className="waits">
                {waits.map((w) => (
                  <li key={w.to + w.what}>
                    <Link to={w.to}>
                      <b>{number(w.count)}</b>
                      <span>
                        {w.what}
                        <small>{w.more}</small>
                      </span>
                    </Link>
                  </li>
                ))}
              </ul>
            ) : null}
          </OverviewSection>
          {unsaved.length ? (
            <OverviewSection title={wording.notSavedYet}>
              <ul>
                {unsaved.map(({ path, title }) => (
                  <li key={path}>
                    <Link to={path}>
                      <bdi>{title}</bdi>
                    </Link>
                  </li>
                ))}
              </ul>
            </OverviewSection>
          ) : null}
          {data.records === 0 ? <FirstSteps /> : null}
          <OverviewSection title={wording.begin}>
            <QuickActs />
          </OverviewSection>
          <OverviewSection title={wording.recentWork}>
            <div>
              {data.lastEntries.length === 0 ? (
                <p className="faded">{wording.nothingHasBeenDoneYet}</p>
              ) : null}
              {data.lastEntries.map((e) => (
                <EntryLine key={e.id} entry={e} />
              ))}
            </div>
          </OverviewSection>
          <CountedSearches />
          {data.findings.length ? (
            <OverviewSection title={wording.findingsInTheCatalogue}>
              <FrequentFindings findings={data.findings} most={FINDINGS} />
            </OverviewSection>
          ) : null}
          {desk ? (
            <OverviewSection title={wording.services}>
              <p>
                <Mark kind={desk.kind} name={desk.text} /> {desk.text}
                {outside?.since ? wording.since(when(outside.since)) : ''}
              </p>
            </OverviewSection>
          ) : null}
          {data.branches.length ? (
            <OverviewSection title={wording.theLibraryByBranch}>
              <BranchTable branches={data.branches} />
            </OverviewSection>
          ) : null}
        </Overview>
      </div>
    </>
  );
}

interface Waiting {
  readonly to: string;
  readonly count: number;
  readonly what: string;
  readonly more: string;
}

function waitingIn(data: TodayAnswer, me: number): Waiting[] {
  const attention = {
    to: '/today/attention',
    count: data.disputed,
    what: wording.thingsNeedAttention,
    more: wording.duplicatesOrAttachedToNothing,
  };
  const alike = {
    to: '/headings',
    count: data.lookAlikes,
    what: wording.groupsOfLookAlikeNames,
    more: wording.mergeOrKeepApart,
  };
  return [
    ...(data.disputed ? [attention] : []),
    ...data.deliveries.map((d) => ({
      to: `/deliveries/${d.id}`,
      count: d.waiting,
      what: `incoming records in ${d.name}`,
      more: d.errors ? wording.withErrors(number(d.errors)) : wording.noErrorsFound,
    })),
    ...(data.briefRecords.offered
      ? [
          {
            to: '/neighbours?show=brief&list=offered',
            count: data.briefRecords.offered,
            what: wording.fullRecordsOffered(data.briefRecords.offered),
            more: wording.takeOrRefuse,
          },
        ]
      : []),
    ...(data.briefRecords.long
      ? [
          {
            to: '/neighbours?show=brief&list=long',
            count: data.briefRecords.long,
            what: wording.briefRecordsWait(data.briefRecords.long),
            more: wording.noNeighbourHasThem,
          },
        ]
      : []),
    ...(data.lookAlikes ? [alike] : []),
    ...data.withdrawalLists.map((l) => ({
      to: `/withdrawals/${l.id}`,
      count: l.codes,
      what: wording.copiesOnTheWithdrawalList(l.name),
      more: !l.confirmer
        ? wording.toCheckAndConfirm
        : l.confirmer.id === me
          ? wording.youConfirmIt
          : wording.isToConfirm(l.confirmer.name),
    })),
    ...data.stocktakes.map((s) => ({
      to: `/stocktake/${s.id}`,
      count: s.expected - s.found,
      what: wording.copiesNotYetScannedIn(s.name),
      more: wording.ofFound(number(s.found), number(s.expected)),
    })),
  ];
}
