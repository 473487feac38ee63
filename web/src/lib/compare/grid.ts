import type { Schemas } from '../api/client';

type Row = Schemas['GridRowView'];
type Cell = Schemas['GridCellView'];

/** What a cell of the grid tells. */
export const tells = { verdict: 'verdict', share: 'share shown', headroom: 'headroom' } as const;
export type Tells = keyof typeof tells;

const rank = { holds: 0, wavers: 1, breaks: 2 } as const;

/** The worse the higher; what is not known comes last. */
function weight(cell: Cell | null, by: Tells): number {
  if (!cell) return Infinity;
  if (by === 'share') return -cell.share;
  if (by === 'headroom') return cell.headroom == null ? 1e9 - cell.share : -cell.headroom;
  return cell.verdict ? rank[cell.verdict] * 1000 - cell.holds : 1e9;
}

/** Rows in order: by 'machine' with real machines first, 'price', or the number of a column, the best first. Equal rows stay as they stood. */
export function sorted(rows: Row[], column: string, by: Tells): Row[] {
  if (column === 'machine') return [...rows].sort((one, other) => Number(one.isStandIn) - Number(other.isStandIn) || one.machine.localeCompare(other.machine, 'en', { numeric: true }));
  if (column === 'price') return [...rows].sort((one, other) => (one.price ?? Infinity) - (other.price ?? Infinity) || 0);
  const at = Number(column);
  return [...rows].sort((one, other) => {
    const [first, second] = [weight(one.cells[at] ?? null, by), weight(other.cells[at] ?? null, by)];
    return first === second ? 0 : first - second;
  });
}
