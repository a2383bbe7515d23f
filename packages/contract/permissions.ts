/** The roles, each allowed what those before it are. */
export const ROLES = ['assistant', 'cataloguer', 'head'] as const;
export type Role = (typeof ROLES)[number];

/** What a person may be allowed to do, and the least role that may. This table is the only place that says so. */
export const PERMISSIONS = {
  look: 'assistant',
  scan: 'assistant',
  'keep searches': 'assistant',
  'edit records': 'cataloguer',
  'take in deliveries': 'cataloguer',
  'merge headings': 'cataloguer',
  'edit copies': 'cataloguer',
  'keep piles': 'cataloguer',
  'prepare withdrawals': 'cataloguer',
  'prepare stocktakes': 'cataloguer',
  undo: 'cataloguer',
  'confirm withdrawals': 'head',
  'manage stocktakes': 'head',
  'set up': 'head',
} as const satisfies Record<string, Role>;
export type Permission = keyof typeof PERMISSIONS;

/** What the head may allow a person beside what the role allows. */
export const GRANTED = ['manage stocktakes'] as const satisfies readonly Permission[];
export type Granted = (typeof GRANTED)[number];

/** Whether a role may do something, or a person to whom it was given. */
export function may(role: Role, permission: Permission, rights: readonly Permission[] = []): boolean {
  return ROLES.indexOf(role) >= ROLES.indexOf(PERMISSIONS[permission]) || rights.includes(permission);
}

/** What undoing an entry asks for: taking back an act of the head is the head's. */
export function permissionToUndo(act: string): Permission {
  if (act === 'withdraw' || act === 'restore' || act === 'tell-union') return 'confirm withdrawals';
  if (act === 'start-stocktake' || act === 'close-stocktake') return 'manage stocktakes';
  if (act === 'set-up') return 'set up';
  return 'undo';
}
