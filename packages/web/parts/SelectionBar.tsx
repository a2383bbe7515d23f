import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { Ticks } from './ticks';
import './selection-bar.css';

/** What can be done with the rows that are ticked; nothing while none is. Ctrl Enter in the list leads here. */
export const SelectionBar = ({ ticks, children }: { ticks: Ticks; children: ReactNode }) =>
  ticks.ids.size === 0 ? null : (
    <div className="selection-bar" role="toolbar" aria-label="Acts of the selection">
      <b>{ticks.ids.size.toLocaleString('en-GB')} selected</b>
      {children}
      <Button size="small" onClick={ticks.clear}>
        Clear selection
      </Button>
      <kbd title="From the list to these acts">Ctrl Enter</kbd>
    </div>
  );
