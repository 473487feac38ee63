/** Whether two things say the same: the order of members does not matter, and neither does whether an empty one is written. */
export const same = (one: unknown, other: unknown): boolean => plainText(one) === plainText(other);

const plainText = (thing: unknown): string =>
  JSON.stringify(thing, (_, value: unknown) =>
    value && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).filter(([, member]) => member !== null && member !== undefined).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value
  );
