export { Finding } from './finding.ts';
export { findingsOf } from './findings.ts';
export { NotTaken } from './notTaken.ts';
