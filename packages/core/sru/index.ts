export { dublinCore, type DcElement } from './dublin-core';
export type { AnsweredSchema, AnsweredVersion, Diagnostic, SruAsked, SruRefused } from './request';
export { readSruRequest } from './request';
export type { Retrieved, ScanTerm, SruPlace } from './response';
export { explainResponse, SCANNED, scanResponse, searchRefused, searchResponse } from './response';
