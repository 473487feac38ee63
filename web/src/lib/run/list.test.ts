import { describe, expect, it } from 'vitest';
import type { RunLine } from '../api/client';
import { columns, grouped, orders, written } from './list';

const run = (id: number, changes: Partial<RunLine> = {}): RunLine => ({
  id,
  startedAt: '2026-03-04T05:06:07Z',
  timelineId: 'touring-night',
  timelineTitle: 'Touring night',
  timelineDigest: 'd',
  machineId: 'machine-3f9a2c',
  machineName: 'This machine',
  scale: 'full',
  policy: 'keepTime',
  ending: 'finished',
  byHand: false,
  conditionsDigest: 'a',
  differences: [],
  trialId: null,
  label: null,
  marks: 0,
  verdicts: ['holds', 'breaks', null],
  slots: 100,
  shown: 75,
  steadyDrops: 25,
  ...changes
});

describe('the runs list', () => {
  it('can be put in order by columns that there are', () => {
    for (const name of Object.keys(orders)) expect(Object.keys(columns)).toContain(name);
  });

  const runs = [
    run(3, { machineId: 'curlew-desk', machineName: 'Curlew desk', trialId: 9, label: '2 of 3' }),
    run(2, { scale: 'half', differences: ['half scale', 'footage cold'], conditionsDigest: 'b', ending: 'cutShort' }),
    run(1, { byHand: true, conditionsDigest: 'c' })
  ];
  const ids = (found: RunLine[]) => found.map((one) => one.id);

  it('groups what was played under the same conditions, newest group first', () => {
    const again = run(4, { scale: 'half', differences: ['half scale', 'footage cold'], conditionsDigest: 'b' });
    const groups = grouped([again, ...runs], 'conditions');
    expect(groups.map((group) => ids(group.runs))).toEqual([[4, 2], [3], [1]]);
    expect(groups[0].title).toBe('Touring night on This machine, half scale, footage cold');
    expect(groups[2].title).toContain('by hand');
  });

  it('says what sets groups apart that would have the same head', () => {
    const heads = grouped(
      [run(9), run(8, { conditionsDigest: 'e' }), run(7, { conditionsDigest: 'f', timelineDigest: 'older' })],
      'conditions'
    ).map((group) => group.title);
    expect(heads).toEqual([
      'Touring night on This machine, full scale, bare',
      'Touring night on This machine, full scale, bare, with other clips or another version of the player',
      'Touring night on This machine, full scale, bare, the timeline as it was before an edit'
    ]);
  });

  it('groups by trial, with those outside any together', () => {
    expect(grouped(runs, 'trial').map((group) => [group.trialId, ids(group.runs)])).toEqual([
      [9, [3]],
      [null, [2, 1]]
    ]);
  });

  it('is written out with a heading and quoted fields', () => {
    const [head, line, end] = written([runs[1]], ',').split('\r\n');
    expect(head).toBe('run,started,timeline,machine,scale,conditions,ending,holds,wavers,breaks,shown %,slots,marks');
    expect(line).toBe('2,2026-03-04T05:06:07Z,Touring night,This machine,half,footage cold,interrupted,1,0,1,75.0,100,');
    expect(end).toBe('');
    expect(written(runs, '\t').split('\r\n')[0].split('\t')).toHaveLength(13);
  });
});
