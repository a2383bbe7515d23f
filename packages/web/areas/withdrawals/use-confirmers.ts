import { may } from '@osier/contract';
import type { FormField } from '../../parts/form/field-kinds';
import { useSetUp } from '../setup/use-set-up';
import { withdrawalsWords as wording } from './words';

/** Stands for anybody who may confirm. */
export const ANYBODY = '0';

/** The field that says who is to confirm a list: one of those who may, or any of them. */
export function useConfirmerField(): FormField {
  const people = useSetUp()?.people ?? [];
  const able = people.filter((p) => p.active && may(p.role, 'confirm withdrawals', p.rights));
  return {
    name: 'confirmer',
    label: wording.toBeConfirmedBy,
    kind: 'choice',
    options: [
      { value: ANYBODY, label: wording.anybodyWhoMay },
      ...able.map((p) => ({ value: String(p.id), label: p.name })),
    ],
  };
}

/** What the person is called who is to confirm a list; undefined for anybody who may. */
export function useConfirmer(id: number | undefined): string | undefined {
  const people = useSetUp()?.people ?? [];
  return people.find((p) => p.id === id)?.name;
}
