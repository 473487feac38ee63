import { expect, test } from 'vitest';
import type { Schemas } from '../api/client';
import { sorted } from './grid';

const cell = (verdict: 'holds' | 'wavers' | 'breaks' | null, share: number, headroom: number | null = null) => ({ runId: 1, verdict, share, headroom, limiter: null, holds: verdict === 'holds' ? 1 : 0, judged: 1 });
const row = (machine: string, price: number | null, ...cells: (ReturnType<typeof cell> | null)[]) => ({ machineId: machine, machine, isStandIn: true, price, cells }) as Schemas['GridRowView'];

const rows = [row('b', 900, cell('breaks', 0.2)), row('a', null, cell('holds', 1, 1.5)), row('d', 500, null), row('c', 700, cell('holds', 1, 4)), row('e', 600, cell('wavers', 0.99))];
const names = (column: string, by: 'verdict' | 'share' | 'headroom') => sorted(rows, column, by).map((one) => one.machine).join('');

test('a grid is put in order by any column, the best first and what was not played last', () => {
  expect(names('0', 'verdict')).toBe('acebd');
  expect(names('0', 'share')).toBe('acebd');
  expect(names('0', 'headroom')).toBe('caebd');
  expect(names('machine', 'share')).toBe('abcde');
  expect(names('price', 'share')).toBe('decba');
  expect(names('7', 'share')).toBe('badce');
});

test('names with numbers are sorted by the number, this machine first', () => {
  const named = ['Heron, 16 GB', 'Heron, 8 GB', 'This machine'].map((machine) => ({ ...row(machine, null), isStandIn: machine !== 'This machine' }));
  expect(sorted(named, 'machine', 'verdict').map((one) => one.machine)).toEqual(['This machine', 'Heron, 8 GB', 'Heron, 16 GB']);
});
