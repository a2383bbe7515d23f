import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { focusScanLine } from '../../shell/shortcuts';
import { useMay } from '../../shell/person';
import { todayWords as wording } from './words';

/** What can be begun from here, as far as one may. */
export function QuickActs() {
  const navigate = useNavigate();
  const [mayEdit, mayLoad, mayStart, mayWithdraw] = [
    useMay('edit records'),
    useMay('take in deliveries'),
    useMay('manage stocktakes'),
    useMay('prepare withdrawals'),
  ];
  return (
    <div className="quick">
      <Button onClick={focusScanLine}>
        {wording.scanOrSearch} <kbd>/</kbd>
      </Button>
      {mayLoad ? <Button onClick={() => void navigate('/deliveries')}>{wording.loadAFile}</Button> : null}
      {mayEdit ? (
        <>
          <Button onClick={() => void navigate('/catalogue/brief')}>{wording.addABriefRecord}</Button>
          <Button onClick={() => void navigate('/catalogue/new?starter=book')}>{wording.addARecord}</Button>
        </>
      ) : null}
      {mayStart ? (
        <Button onClick={() => void navigate('/stocktake?start=1')}>{wording.startAStocktake}</Button>
      ) : null}
      {mayWithdraw ? (
        <Button onClick={() => void navigate('/withdrawals?start=1')}>{wording.startAWithdrawalList}</Button>
      ) : null}
    </div>
  );
}
