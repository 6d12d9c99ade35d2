import type { ReactNode } from "react";

/** Words for those who don't see the page. A class, no style of its own: the page's policy allows none. */
export const Hidden = ({ children }: { children: ReactNode }) => <span className="sr-only">{children}</span>;
