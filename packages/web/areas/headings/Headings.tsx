import { useNavigate, useParams } from 'react-router';
import { AreaHead } from '../../parts/AreaHead';
import { PageButtons } from '../../parts/PageButtons';
import { useAddress } from '../../parts/use-address';
import { AlikeList, useAlikeGroups } from './AlikeList';
import { AllHeadings } from './AllHeadings';
import './headings.css';
import { headingsWords as wording } from './words';

/** Authority work: headings that look alike, and all headings. */
export default function Headings() {
  const { id } = useParams();
  const [query] = useAddress();
  const navigate = useNavigate();
  const all = query.get('show') === 'all' || id !== undefined;
  const list = useAlikeGroups();
  const total = list.data?.pages[0]?.total ?? 0;
  const comparing = list.data?.pages[0]?.comparing ?? 0;
  return (
    <>
      <AreaHead
        name={wording.headings}
        state={
          (total ? wording.groupsOfNamesThatMay(total.toLocaleString('en-GB')) : wording.noNamesLookAlike) +
          (comparing ? wording.namesAreStillBeingCompared(comparing.toLocaleString('en-GB')) : '')
        }
      >
        <PageButtons
          label={wording.show}
          pages={[
            ['alike', wording.lookAlikes],
            ['all', wording.allHeadings],
          ]}
          chosen={all ? 'all' : 'alike'}
          onChoose={(key) => void navigate(key === 'all' ? '/headings?show=all' : '/headings')}
        />
      </AreaHead>
      {all ? <AllHeadings id={id ? Number(id) : null} /> : <AlikeList />}
    </>
  );
}
