/** The most runs that stand side by side. */
export const mostSides = 6;

/** Whether so many can be compared. */
export const comparable = (sides: number) => sides >= 2 && sides <= mostSides;
