import { describe, expect, test } from 'vitest';
import type { Machine, Schemas } from '../api/client';
import { decidedBy, decodingPlaces, effectPlaces } from './devices';

const machine = (kind: string, decodes: string[], graphics: string | null) => ({ kind, decodes, graphics }) as unknown as Machine;
const devices: Schemas['Device'][] = [
  { name: 'vaapi', refusal: null, isOwn: true },
  { name: 'opencl', refusal: null, isOwn: false },
  { name: 'cuda', refusal: 'no such device', isOwn: false }
];

describe('places of work', () => {
  test('a stand-in offers its own devices and the processor, never those of this machine', () => {
    expect(decodingPlaces(machine('standIn', ['AVC'], 'Tern 8'), devices)).toEqual([['', 'its media engine'], ['processor', 'processor only']]);
    expect(effectPlaces(machine('standIn', [], 'Tern 8'), devices)).toEqual([['', 'Tern 8'], ['processor', 'processor only']]);
    expect(decodingPlaces(machine('standIn', [], null), devices)[0][1]).toBe('processor: no media engine');
  });

  test('this machine offers its devices first, and software devices as such', () => {
    expect(decodingPlaces(machine('real', [], null), devices)).toEqual([
      ['', 'its devices: vaapi'],
      ['processor', 'processor only'],
      ['vaapi', 'vaapi'],
      ['opencl', 'opencl, in software']
    ]);
    expect(effectPlaces(machine('real', [], null), [])[0][1]).toBe('processor: no device found');
  });

  test('it states what a program decides', () => {
    const program = { name: 'Brailwork', onMediaEngine: [], composesOn: 'processor' } as unknown as Schemas['EditingProgram'];
    expect(decidedBy(null)).toBeNull();
    expect(decidedBy(program)).toBe('Brailwork gives the media engine nothing and works effects on the processor.');
    expect(decidedBy({ ...program, onMediaEngine: null, composesOn: 'graphics' })).toContain('everything it takes and works effects on graphics');
  });
});
