import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { Ticks } from './ticks';
import './selection-bar.css';
import { partWords as wording } from './words';

/** What can be done with the rows that are ticked; nothing while none is. Ctrl Enter in the list leads here. */
export const SelectionBar = ({ ticks, children }: { ticks: Ticks; children: ReactNode }) =>
  ticks.ids.size === 0 ? null : (
    <div className="selection-bar" role="toolbar" aria-label={wording.actsOfTheSelection}>
      <b>{wording.selected(ticks.ids.size.toLocaleString('en-GB'))}</b>
      {children}
      <Button size="small" onClick={ticks.clear}>
        {wording.clearSelection}
      </Button>
      <kbd title={wording.fromTheListToThese}>Ctrl Enter</kbd>
    </div>
  );
