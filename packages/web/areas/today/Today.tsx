import { Link } from 'react-router';
import { AreaHead } from '../../parts/AreaHead';
import { EntryLine } from '../daybook/EntryLine';
import { usePerson } from '../../shell/person';
import './today.css';
import { useToday } from './use-today';

/** The opening area: what waits for me, and what was done last. */
export default function Today() {
  const { data } = useToday();
  const person = usePerson();
  if (!data) return <AreaHead name="Today" state="…" />;
  const waits = [
    ...(data.disputed
      ? [
          {
            to: '/today/attention',
            count: data.disputed,
            what: 'things need attention',
            more: 'twice, or belonging to nothing',
          },
        ]
      : []),
    ...data.deliveries.map((d) => ({
      to: `/deliveries/${d.id}`,
      count: d.waiting,
      what: `records wait in ${d.name}`,
      more: d.errors ? `${d.errors} with errors` : 'no errors found',
    })),
    ...(data.lookAlikes
      ? [
          {
            to: '/headings',
            count: data.lookAlikes,
            what: 'groups of look-alike names',
            more: 'one person, or two?',
          },
        ]
      : []),
    ...data.withdrawalLists.map((l) => ({
      to: `/withdrawals/${l.id}`,
      count: l.codes,
      what: `scans on the withdrawal list ${l.name}`,
      more: 'to weigh and confirm',
    })),
    ...data.stocktakes.map((s) => ({
      to: `/stocktake/${s.id}`,
      count: s.expected - s.found,
      what: `copies still to be seen in ${s.name}`,
      more: `${s.found} of ${s.expected} found`,
    })),
  ];
  const number = (n: number) => n.toLocaleString('en-GB');
  return (
    <>
      <AreaHead
        name="Today"
        state={`Good day, ${person.name.split(' ')[0]}. ${number(data.records)} records, ${number(data.copies)} copies, ${number(data.headings)} headings.`}
      />
      <div className="today">
        <section aria-labelledby="waits">
          <h2 id="waits">Waiting</h2>
          {waits.length === 0 ? (
            <p className="faded">
              Nothing waits. Drop a delivery in <Link to="/deliveries">Deliveries</Link>, or scan something at
              the top.
            </p>
          ) : null}
          <ul>
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
        </section>
        <section aria-labelledby="done">
          <h2 id="done">Recent work</h2>
          <div className="today-done">
            {data.lastEntries.map((e) => (
              <EntryLine key={e.id} entry={e} />
            ))}
          </div>
        </section>
      </div>
    </>
  );
}
