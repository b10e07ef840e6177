import type { Judgement } from '../ledger/entry.ts';

export const kept: Judgement = { outcome: 'kept', code: 'kept' };
export const excluded = (code: string, values: Judgement['values'] = {}): Judgement => ({ outcome: 'excluded', code, values });
export const dropped = (code: string, values: Judgement['values'] = {}): Judgement => ({ outcome: 'dropped', code, values });
export const adapted = (code: string, values: Judgement['values'] = {}): Judgement => ({ outcome: 'adapted', code, values });
