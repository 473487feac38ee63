import { describe, expect, it } from 'vitest';
import { stepOf } from './words';

describe('where a play stands', () => {
  it.each([
    [{ kind: 'play', step: '', stepNumber: 0, stepCount: null }, ''],
    [{ kind: 'play', step: 'creating the proxy of hd-avc-25', stepNumber: 0, stepCount: null }, ': creating the proxy of hd-avc-25'],
    [{ kind: 'play', step: '1 of 1', stepNumber: 1, stepCount: 1 }, ''],
    [{ kind: 'repeat', step: '', stepNumber: 0, stepCount: null }, ': about to begin'],
    [{ kind: 'repeat', step: '2 of 3', stepNumber: 2, stepCount: 3 }, ': 2 of 3'],
    [{ kind: 'halfRate', step: 'half rate', stepNumber: 2, stepCount: 2 }, ': half rate, 2 of 2'],
    [{ kind: 'ramp', step: 'passage 4', stepNumber: 3, stepCount: null }, ': passage 4']
  ] as const)('%o', (play, words) => expect(stepOf(play)).toBe(words));
});
