import { may, type Permission, type Person } from '@osier/contract';
import { createContext, useContext } from 'react';

export const PersonContext = createContext<Person | null>(null);
export const usePerson = (): Person => useContext(PersonContext)!;
/** Whether to show what asks for a permission; the server decides again. */
export const useMay = (permission: Permission): boolean => {
  const { role, rights } = usePerson();
  return may(role, permission, rights);
};
