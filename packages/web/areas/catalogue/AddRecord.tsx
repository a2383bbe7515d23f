import { DownOutlined } from '@ant-design/icons';
import { api } from '@osier/contract';
import { Button, Space } from 'antd';
import { memo } from 'react';
import { useNavigate } from 'react-router';
import { useApi } from '../../api/queries';
import { ActionMenu } from '../../parts/ActionMenu';
import { catalogueWords as wording } from './words';

/** Begins a record: a brief one with its copy, or a full one from a starter. */
export const AddRecord = memo(function AddRecord() {
  const navigate = useNavigate();
  const { data: starters = [] } = useApi(api.starters.list);
  return (
    <Space.Compact>
      <Button data-key="b" onClick={() => void navigate('/catalogue/brief')}>
        {wording.addBriefRecord}
      </Button>
      <ActionMenu
        menu={{
          items: starters.map(({ key, starter }) => ({
            key,
            label: starter.name,
            onClick: () => void navigate(`/catalogue/new?starter=${encodeURIComponent(key)}`),
          })),
        }}
      >
        <Button data-key="n">
          {wording.addRecord} <DownOutlined />
        </Button>
      </ActionMenu>
    </Space.Compact>
  );
});
