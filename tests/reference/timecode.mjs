// Prints the timecode of every frame of a day as the npm package smpte-timecode counts it: node timecode.mjs RATE DROPFRAME
import Timecode from 'smpte-timecode';

const [rate, drop] = [Number(process.argv[2]), process.argv[3] === 'true'];
const last = Number(process.argv[4]);
const timecode = Timecode(0, rate, drop);
let lines = [];
for (let frame = 0; frame < last; frame++) {
  lines.push(timecode.toString());
  timecode.add(1);
  if (lines.length === 10000) {
    process.stdout.write(lines.join('\n') + '\n');
    lines = [];
  }
}
if (lines.length) process.stdout.write(lines.join('\n') + '\n');
