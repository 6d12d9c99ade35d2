import type { Finding } from "@/core/checks";

/** How a finding that comes with an act is set off, by its grade. */
export const SEVERITY_MARK: Record<Finding["severity"], string> = {
  stop: "border-l-4 border-stop pl-2 text-stop",
  fault: "border-l-4 border-stop pl-2",
  risk: "border-l-4 border-risk pl-2",
  note: "pl-3 text-soft",
};
