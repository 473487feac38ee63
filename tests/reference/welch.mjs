// Compares two samples as the npm package @stdlib/stats-ttest2 does: pairs of samples as JSON on standard input, one result a line.
import { createInterface } from 'node:readline';
import ttest2 from '@stdlib/stats-ttest2';

for await (const line of createInterface({ input: process.stdin })) {
  const { first, second } = JSON.parse(line);
  const result = ttest2(second, first, { variance: 'unequal', alpha: 0.05 });
  console.log(JSON.stringify({ low: result.ci[0], high: result.ci[1], chance: result.pValue }));
}
