/** What is searched for: records of the catalogue, their holdings or copies, or headings. */
export const SAVED_OF = ['record', 'holding', 'copy', 'heading'] as const;
export type SavedOf = (typeof SAVED_OF)[number];

/** A search that is kept under a name, for oneself or for all. */
export interface SavedSearch {
  readonly name: string;
  readonly of: SavedOf;
  /** What is searched for and what narrows it, by the names that the list has for them in its address. */
  readonly search: Readonly<Record<string, string>>;
  /** The person who keeps it. */
  readonly owner: number;
  /** Everybody sees it. */
  readonly isShared: boolean;
  /** Today shows how much it finds: to its owner, and to all where it is shared. */
  readonly onToday: boolean;
}
