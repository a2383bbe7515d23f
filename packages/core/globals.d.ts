// The few globals that every place core runs in (Node, workers, browsers) has, and ES libs do not name.
declare class TextDecoder {
  readonly encoding: string;
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  decode(input?: Uint8Array, options?: { stream?: boolean }): string;
}
declare class TextEncoder {
  encode(input: string): Uint8Array;
}
declare class URL {
  static canParse(url: string, base?: string): boolean;
  readonly protocol: string;
  readonly username: string;
  readonly password: string;
  readonly href: string;
  hash: string;
  search: string;
  readonly searchParams: { set(name: string, value: string): void };
  constructor(url: string, base?: string);
}
