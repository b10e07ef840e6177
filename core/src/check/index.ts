export { Finding } from './finding.ts';
export { fontReport, FamilyReport } from './fontReport.ts';
export { findingsOf } from './findings.ts';
export { NotTaken } from '../intake/notTaken.ts';
