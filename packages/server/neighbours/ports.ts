import type { Neighbour, Sought } from '@osier/core/neighbours';

/** Why a neighbour gave nothing. `down`: it may well answer later; `slow`: not within its time; `stopped`: nobody waits for it any longer. */
export type FailureKind = 'down' | 'slow' | 'refused' | 'faulty' | 'own network' | 'no index' | 'stopped';

/** That a neighbour gave nothing, with the sentence why. */
export class NeighbourFailure extends Error {
  constructor(
    readonly kind: FailureKind,
    message: string,
  ) {
    super(message);
  }
}

/** What came from a neighbour, as bytes in the format of its protocol. */
export interface RawAnswer {
  readonly format: 'sru' | 'iso2709';
  readonly bytes: Uint8Array;
  /** How many records it has, where the protocol says it beside the bytes. */
  readonly count: number | null;
}

/** A neighbour with what it is signed on with. */
export interface AskedNeighbour {
  readonly neighbour: Neighbour;
  /** '' where none is kept. */
  readonly password: string;
}

/** Gets a picture that a record of a neighbour links to; throws `NeighbourFailure`. */
export type PicturePort = (neighbour: Neighbour, address: string, signal: AbortSignal) => Promise<Uint8Array>;

/** What is needed of the libraries outside, whatever they speak. */
export interface NeighbourPort {
  /** Looks for something; throws `NeighbourFailure`. */
  search(asked: AskedNeighbour, sought: Sought, signal: AbortSignal): Promise<RawAnswer>;
  /** What it says of itself; null where its protocol, or the neighbour, says nothing. */
  explain(asked: AskedNeighbour, signal: AbortSignal): Promise<Uint8Array | null>;
}
