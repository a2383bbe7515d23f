import { CheckOutlined } from '@ant-design/icons';
import { api } from '@osier/contract';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { OverviewSection } from '../../parts/Overview';
import { useSetUp } from '../setup/use-set-up';
import { useToday } from './use-today';
import { todayWords as wording } from './words';

/** The first five steps of an empty installation, ticked off as they are done. */
export function FirstSteps() {
  const setUp = useSetUp();
  const { data: today } = useToday();
  const { data: rolls = [] } = useApi(api.suppliers.rolls);
  if (!setUp) return null;
  const steps = [
    {
      what: wording.nameTheBranchesAndLocations,
      to: '/set-up',
      isDone: setUp.lists.value.branches.length > 0,
    },
    { what: wording.lookThroughTheHouseRules, to: '/set-up?show=house', isDone: setUp.house.version > 0 },
    { what: wording.reserveALabelRollFor, to: '/set-up?show=suppliers', isDone: rolls.length > 0 },
    {
      what: wording.loadAFileOfRecords,
      to: '/deliveries',
      isDone: (today?.deliveries.length ?? 0) > 0 || (today?.records ?? 0) > 0,
    },
    { what: wording.acceptItsRecords, to: '/deliveries', isDone: (today?.records ?? 0) > 0 },
  ];
  return (
    <OverviewSection title={wording.firstSteps}>
      <ol>
        {steps.map((s) => (
          <li key={s.what}>
            <span className="step">
              <Link to={s.to}>{s.what}</Link>
              {s.isDone ? <CheckOutlined aria-label={wording.done} /> : null}
            </span>
          </li>
        ))}
      </ol>
    </OverviewSection>
  );
}
