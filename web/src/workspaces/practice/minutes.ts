/** `4.5 min`, `38 min`. */
export const minutes = (of: number): string => `${of.toFixed(of < 10 ? 1 : 0)} min`;
