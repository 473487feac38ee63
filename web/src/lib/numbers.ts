type Limits = { min: number; max?: number | null; whole?: boolean };
type Read = { value: number; problem: null } | { value: null; problem: string };

/** Reads a number as somebody typed it; a comma counts as the decimal sign. */
export function numberOf(text: string, { min, max = null, whole = false }: Limits): Read {
  const words = text.trim().replace(',', '.');
  const value = Number(words);
  const wrong = (problem: string): Read => ({ value: null, problem });
  if (words === '') return wrong('A number is wanted.');
  if (!Number.isFinite(value)) return wrong(`“${text.trim()}” is no number.`);
  if (whole && !Number.isInteger(value)) return wrong('A whole number is wanted.');
  if (value < min || (max !== null && value > max)) return wrong(max === null ? `At least ${min}.` : `From ${min} to ${max}.`);
  return { value, problem: null };
}
