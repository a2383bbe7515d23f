import {
  AuditOutlined,
  BookOutlined,
  CalendarOutlined,
  ContainerOutlined,
  DeleteOutlined,
  InboxOutlined,
  ReadOutlined,
  SettingOutlined,
  TagsOutlined,
} from '@ant-design/icons';
import type { Today } from '@osier/contract';
import type { ReactNode } from 'react';

/** The areas in the order of the day, with the number that waits in each. */
export const AREAS: readonly { path: string; name: string; icon: ReactNode; waits?: (t: Today) => number }[] =
  [
    { path: '/today', name: 'Today', icon: <CalendarOutlined /> },
    {
      path: '/deliveries',
      name: 'Deliveries',
      icon: <InboxOutlined />,
      waits: (t) => t.deliveries.reduce((n, d) => n + d.waiting, 0),
    },
    { path: '/catalogue', name: 'Catalogue', icon: <BookOutlined /> },
    { path: '/headings', name: 'Headings', icon: <TagsOutlined />, waits: (t) => t.lookAlikes },
    { path: '/copies', name: 'Copies', icon: <ContainerOutlined /> },
    {
      path: '/withdrawals',
      name: 'Withdrawals',
      icon: <DeleteOutlined />,
      waits: (t) => t.withdrawalLists.length,
    },
    { path: '/stocktake', name: 'Stocktake', icon: <AuditOutlined />, waits: (t) => t.stocktakes.length },
    { path: '/daybook', name: 'Daybook', icon: <ReadOutlined /> },
    { path: '/set-up', name: 'Set-up', icon: <SettingOutlined /> },
  ];
