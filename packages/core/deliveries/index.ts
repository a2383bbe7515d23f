export type { Delivery, Incoming } from './incoming';
export type { AcceptContext, AcceptPlan } from './accept-plan';
export { acceptPlan } from './accept-plan';
export type { FileLook, LookKind, RepairKind } from './file-look';
export { fileLook } from './file-look';
export type { ReportRow } from './report';
export { reportHead, reportLine } from './report';
