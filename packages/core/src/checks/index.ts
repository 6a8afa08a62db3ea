export { aboutOf, acceptedOf } from './accept.ts';
export { beforeSend, noteText } from './before-send.ts';
export { catalogue, type FindingLevel } from './catalogue.ts';
export { blocks, checkJob } from './check.ts';
export type { Finding } from './finding.ts';
export { jobSheetOf, type SheetWish } from './job-sheet.ts';
export { jobSource, type Report, type ReportSource, reportOf } from './report.ts';
