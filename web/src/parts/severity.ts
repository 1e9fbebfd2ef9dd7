import type { Finding } from "../api/client";
import { LISTS } from "../api/generated/lists";

/** How grave a finding is, in words. */
export const SEVERITY = Object.fromEntries(LISTS.severities) as Record<Finding["severity"], string>;
