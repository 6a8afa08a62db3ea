export { aboutOf, acceptedOf } from './accept.ts';
export { catalogue } from './catalogue.ts';
export { blocks, checkJob } from './check.ts';
export type { Finding } from './finding.ts';
export { jobSource, type Report, type ReportSource, reportOf } from './report.ts';
