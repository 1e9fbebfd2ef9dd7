/** How grave a finding is, in words. */
export const SEVERITY = { danger: "Danger", fault: "Against today's rule", note: "Worth knowing" } as const;
