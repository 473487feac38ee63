import { bins, freezes } from './teeth';

/** Draws a comb: on time a full tooth up, late a short one, an overdue frame a low one in the colour of misses, no new picture a mark
 * below the base line, a freeze a bracket, what a person pinned to a frame a line with a flag. */
export function drawComb(canvas: HTMLCanvasElement, teeth: string, options: { frames: number; chosen?: number; shortestFreeze: number; marked?: number[] }) {
  const ratio = window.devicePixelRatio || 1;
  const { clientWidth: width, clientHeight: height } = canvas;
  canvas.width = width * ratio;
  canvas.height = height * ratio;
  const pen = canvas.getContext('2d')!;
  pen.scale(ratio, ratio);
  const style = getComputedStyle(canvas);
  const colour = (name: string) => style.getPropertyValue(name).trim();
  const base = Math.round(height * 0.66);
  const step = width / Math.max(1, options.frames);

  pen.fillStyle = colour('--color-base-300');
  pen.fillRect(0, base, width, 1);
  for (const bin of bins(teeth, Math.floor(width / 2))) {
    const x = bin.from * step;
    const wide = Math.max(0.75, bin.count * step - (step * bin.count > 2.5 ? 1 : 0.35));
    const bar = (share: number, reach: number, name: string, up: boolean) => {
      if (share <= 0) return;
      pen.fillStyle = colour(name);
      const tall = Math.max(1.5, share * reach);
      pen.fillRect(x, up ? base - tall : base + 1.5, wide, tall);
    };
    bar(bin.overdue / bin.count, base * 0.3, '--color-error', true);
    bar(bin.late / bin.count, base * 0.6, '--color-accent', true);
    bar(bin.onTime / bin.count, base - 1, '--color-primary', true);
    bar(bin.none / bin.count, height - base - 2, '--color-error', false);
  }

  pen.strokeStyle = colour('--color-error');
  for (const freeze of freezes(teeth, options.shortestFreeze)) {
    const [from, to, top] = [freeze.from * step + 0.5, (freeze.from + freeze.count) * step - 0.5, Math.round(base * 0.35) + 0.5];
    pen.beginPath();
    pen.moveTo(from, base - 2);
    pen.lineTo(from, top);
    pen.lineTo(to, top);
    pen.lineTo(to, base - 2);
    pen.stroke();
  }

  pen.fillStyle = colour('--color-base-content');
  for (const at of options.marked ?? []) {
    const x = Math.round((at + 0.5) * step);
    pen.fillRect(x, 0, 1, height);
    pen.fillRect(x, 0, 5, 4);
  }

  if (options.chosen !== undefined) {
    pen.strokeStyle = colour('--color-secondary');
    pen.lineWidth = 1.5;
    pen.strokeRect(options.chosen * step - 0.75, 1, Math.max(3, step + 1), height - 2);
  }
}
