import { counted } from '@osier/core/changes';

/** What undoing says of copies of which the loans desk was told after a stocktake. */
export const saysDeskTold = (n: number): string[] =>
  n === 0
    ? []
    : [
        `The loans desk was told of ${counted(n, 'copy', 'copies')} of these: checked in, or found. Undo does not take that back; put it right there.`,
      ];

/** What undoing says of copies of which the union catalogue was told that they had gone. */
export const saysTold = (n: number): string[] =>
  n === 0
    ? []
    : [
        `The union catalogue was told that ${counted(n, 'copy', 'copies')} of these had gone. What comes back of that is listed under Withdrawals, to be told again.`,
      ];
