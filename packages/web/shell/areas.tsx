import {
  AuditOutlined,
  ApiOutlined,
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
import { shellWords as wording } from './words';

/** The areas in the order of the day, with the number that waits in each. */
export const AREAS: readonly { path: string; name: string; icon: ReactNode; waits?: (t: Today) => number }[] =
  [
    { path: '/today', name: wording.today, icon: <CalendarOutlined /> },
    {
      path: '/deliveries',
      name: wording.deliveries,
      icon: <InboxOutlined />,
      waits: (t) => t.deliveries.reduce((n, d) => n + d.waiting, 0),
    },
    { path: '/neighbours', name: wording.neighbours, icon: <ApiOutlined /> },
    { path: '/catalogue', name: wording.catalogue, icon: <BookOutlined /> },
    { path: '/headings', name: wording.headings, icon: <TagsOutlined />, waits: (t) => t.lookAlikes },
    { path: '/copies', name: wording.copies, icon: <ContainerOutlined /> },
    {
      path: '/withdrawals',
      name: wording.withdrawals,
      icon: <DeleteOutlined />,
      waits: (t) => t.withdrawalLists.length,
    },
    {
      path: '/stocktake',
      name: wording.stocktake,
      icon: <AuditOutlined />,
      waits: (t) => t.stocktakes.length,
    },
    { path: '/daybook', name: wording.daybook, icon: <ReadOutlined /> },
    { path: '/set-up', name: wording.setUp, icon: <SettingOutlined /> },
  ];
