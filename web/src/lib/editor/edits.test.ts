import { describe, expect, it } from 'vitest';
import type { Clip, Timeline } from '../api/client';
import * as edits from './edits';

const timeline: Timeline = {
  id: 't',
  title: 'T',
  raster: { width: 1920, height: 1080 },
  rate: { numerator: 25, denominator: 1 },
  passages: ['a', 'b', 'c', 'd'].map((name) => ({ question: name, frameCount: 101, layers: [{ clipId: name, effects: [], startFrame: 4 }], over: [] }))
};
const names = (of: Timeline) => of.passages.map((passage) => passage.question).join('');

describe('edits of a timeline', () => {
  it('leave the timeline they are given as it was', () => {
    const before = JSON.stringify(timeline);
    edits.remove(timeline, [0]);
    edits.move(timeline, [3], 0);
    edits.split(timeline, 1, {});
    edits.relink(timeline, 'a', { id: 'z', rate: 25 });
    expect(JSON.stringify(timeline)).toBe(before);
  });

  it('take raster, rate and depth from a clip', () => {
    const clip = { raster: 'UHD', rate: '23.976', encoding: 'HEVC 10-bit 4:2:2' } as Clip;
    expect(edits.like(timeline, clip)).toMatchObject({ raster: { width: 3840, height: 2160 }, rate: { numerator: 24000, denominator: 1001 }, bitDepth: 10 });
    expect(edits.like(timeline, { ...clip, raster: '720×576', rate: '25', encoding: 'AVC 8-bit 4:2:0' })).toMatchObject({ raster: { width: 720, height: 576 }, rate: { numerator: 25, denominator: 1 }, bitDepth: 8 });
  });

  it('insert, duplicate, remove and move several at once', () => {
    expect(names(edits.insert(timeline, 1, [{ ...timeline.passages[0], question: 'x' }]))).toBe('axbcd');
    expect(names(edits.duplicate(timeline, [2, 0]))).toBe('abcacd');
    expect(names(edits.remove(timeline, [1, 3]))).toBe('ac');
    expect(names(edits.move(timeline, [0, 2], 1))).toBe('bacd');
    expect(names(edits.move(timeline, [3], -5))).toBe('dabc');
    expect(names(edits.move(timeline, [0], 99))).toBe('bcda');
  });

  it('split so that the second half goes on where the first ends, at the footage’s own rate', () => {
    const retimed = edits.change(timeline, [1], (p) => ({ ...p, layers: [{ ...p.layers[0], retime: { speed: 0.5, method: 'repeat' as const } }] }));
    const [first, second] = edits.split(retimed, 1, { b: 50 }).passages.slice(1, 3);
    expect([first.frameCount, second.frameCount]).toEqual([50, 51]);
    expect(second.layers[0].startFrame).toBe(4 + 50);
  });

  it('relink every layer and know what is missing', () => {
    expect(edits.missingClips(timeline, new Set(['a', 'c', 'd']))).toEqual(['b']);
    expect(edits.missingClips(edits.relink(timeline, 'b', { id: 'a', rate: 25 }), new Set(['a', 'c', 'd']))).toEqual([]);
    expect(edits.relink(timeline, 'b', { id: 'a', rate: 50 }).passages[1].layers[0].startFrame).toBe(8);
  });
});
