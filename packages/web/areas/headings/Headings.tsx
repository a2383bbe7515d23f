import { api } from '@osier/contract';
import { Button } from 'antd';
import { useNavigate, useParams } from 'react-router';
import { call } from '../../api/call';
import { AreaHead } from '../../parts/AreaHead';
import { BatchSheet } from '../../parts/BatchSheet';
import { PageButtons } from '../../parts/PageButtons';
import { useAddress } from '../../parts/use-address';
import { useMay } from '../../shell/person';
import { AlikeList, useAlikeGroups } from './AlikeList';
import { AllHeadings } from './AllHeadings';
import './headings.css';
import { headingsWords as wording } from './words';

/** Authority work: headings that look alike, and all headings. */
export default function Headings() {
  const { id } = useParams();
  const [query, change] = useAddress();
  const mayMerge = useMay('merge headings');
  const file = query.get('file');
  const name = query.get('name') ?? '';
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
        {mayMerge ? (
          <Button data-key="w" onClick={() => void navigate('/headings?show=all&add=1')}>
            {wording.addAHeading}
          </Button>
        ) : null}
      </AreaHead>
      {file && mayMerge ? (
        <BatchSheet
          title={wording.loadTitle(name)}
          batch={{
            key: ['authorities', file],
            review: (from) => call(api.headings.reviewFile, { body: { sha256: file, name, from } }),
            begin: (leaveOut, token) =>
              call(api.headings.takeFile, { body: { sha256: file, name, leaveOut: [...leaveOut], token } }),
          }}
          onClose={() => change({ file: undefined, name: undefined })}
        />
      ) : null}
      {all ? <AllHeadings id={id ? Number(id) : null} /> : <AlikeList />}
    </>
  );
}
