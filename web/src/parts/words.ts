/** The kind of a point after its name, unless the name says it already: "smoke alarm". */
export const kindAfter = (name: string, kind: string): string => (name.toLowerCase().includes(kind) ? "" : kind);
