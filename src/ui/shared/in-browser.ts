import { useSyncExternalStore } from "react";

const NEVER = () => () => undefined;
const YES = () => true;
const NO = () => false;

/**
 * False in what the server sends and until the page lives. Some controls of the library send styles of their own along, which the
 * page's policy refuses: until then something that looks the same stands for them.
 */
export const useInBrowser = (): boolean => useSyncExternalStore(NEVER, YES, NO);
