/** Whether two headings are one: the program would merge them, a person should look, or they are two. */
export type AlikeVerdict = 'same' | 'perhaps' | 'different';

/** A verdict with what speaks for and against it, as phrases. */
export interface Judged {
  readonly verdict: AlikeVerdict;
  readonly evidence: readonly string[];
  /** Two that are different only because nothing speaks for them: what speaks for others of a group may join them. */
  readonly isWeak?: true;
}

/** Two that are not alike, and why. */
export const different = (...evidence: string[]): Judged => ({ verdict: 'different', evidence });
/** Two for which too little speaks. */
export const unlike = (...evidence: string[]): Judged => ({ verdict: 'different', evidence, isWeak: true });
/** Two that a person should look at. */
export const perhaps = (...evidence: string[]): Judged => ({ verdict: 'perhaps', evidence });
/** Two that are one. */
export const same = (...evidence: string[]): Judged => ({ verdict: 'same', evidence });
