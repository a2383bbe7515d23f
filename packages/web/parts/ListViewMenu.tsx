import { ControlOutlined } from '@ant-design/icons';
import { Button, Checkbox, Popover, Radio } from 'antd';
import type { ListColumn, ListView } from './list-view';
import { partWords as wording } from './words';

/** Chooses the columns of a work list, whether its rows are one line or two, and how it is sorted. */
export function ListViewMenu<T>({
  view,
  onView,
  columns,
  order,
  orders,
  onOrder,
}: {
  view: ListView;
  onView: (view: ListView) => void;
  columns: readonly ListColumn<T>[];
  order?: string;
  orders?: readonly (readonly [key: string, name: string])[];
  onOrder?: (key: string) => void;
}) {
  const flip = (key: string) =>
    onView({
      ...view,
      columns: view.columns.includes(key)
        ? view.columns.filter((k) => k !== key)
        : columns.map((c) => c.key).filter((k) => k === key || view.columns.includes(k)),
    });
  const content = (
    <div className="list-view-menu">
      {orders ? (
        <>
          <h3 id="list-order">{wording.sortBy}</h3>
          <Radio.Group
            aria-labelledby="list-order"
            vertical
            value={order}
            onChange={(e) => onOrder?.(String(e.target.value))}
            options={orders.map(([value, label]) => ({ value, label }))}
          />
        </>
      ) : null}
      <h3 id="list-density">{wording.rows}</h3>
      <Radio.Group
        aria-labelledby="list-density"
        vertical
        value={view.isDense}
        onChange={(e) => onView({ ...view, isDense: e.target.value === true })}
        options={[
          { value: false, label: wording.twoLines },
          { value: true, label: wording.oneLine },
        ]}
      />
      <h3>{wording.columns}</h3>
      {columns.map((c) => (
        <Checkbox key={c.key} checked={view.columns.includes(c.key)} onChange={() => flip(c.key)}>
          {c.name}
        </Checkbox>
      ))}
    </div>
  );
  return (
    <Popover trigger="click" placement="bottomRight" content={content}>
      <Button size="small" data-key="v" icon={<ControlOutlined />} className="list-view-button">
        {wording.view}
      </Button>
    </Popover>
  );
}
