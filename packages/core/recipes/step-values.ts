/** Which tags: three characters, `.` for any, as in `6..`. */
export type Tags = string;
/** Which of several. */
export type Which = 'all' | 'first' | 'last';
/** What a text must be like; plain text is looked for as it stands, capitals do not count. */
export interface TextMatch {
  readonly find: string;
  readonly expression?: boolean;
}
