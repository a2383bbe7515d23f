import { useQuery } from '@tanstack/react-query';

/** MARC 21's names and meanings; loaded when the first field view needs them. */
export const useFormat = () =>
  useQuery({ queryKey: ['format'], queryFn: () => import('@osier/core/format'), staleTime: Infinity }).data;

/** A number as it is read: its thousands set apart. */
export const inWords = (n: number): string => n.toLocaleString('en-GB');
